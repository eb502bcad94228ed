import type { RequestHandler } from 'express';
import { HttpProblem } from './problems.js';

const LOOPBACK = ['localhost', '127.0.0.1', '[::1]'];

/** The name in a Host header, without its port, in small letters. Undefined where there is none. */
function nameOf(host: string | undefined): string | undefined {
  return host === undefined ? undefined : /^(\[[\da-f:.]+\]|[^:[\]/@\s]+)(?::\d+)?$/i.exec(host)?.[1].toLowerCase();
}

/**
 * The names under which this server answers: those of the machine itself, and what is configured. A page that had its own name
 * point here would otherwise speak to it as if it were its own server.
 */
export class Hosts {
  private readonly names: ReadonlySet<string>;

  constructor(configured: readonly string[]) {
    this.names = new Set([...LOOPBACK, ...configured.map((name) => name.toLowerCase())]);
  }

  allows(host: string | undefined): boolean {
    const name = nameOf(host);
    return name !== undefined && this.names.has(name);
  }

  readonly required: RequestHandler = (request, _response, next) => {
    if (!this.allows(request.headers.host))
      throw new HttpProblem(421, 'This server does not answer under this name', 'Put the name into ALLOWED_HOSTS where it should.');
    next();
  };
}
