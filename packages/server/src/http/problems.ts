import type { Problem } from '@eager-ember/core';
import type { ErrorRequestHandler, RequestHandler } from 'express';
import type { Logger } from 'pino';
import { ConnectionError, TimeoutError } from 'sequelize';

/** An answer that says what went wrong, as problem details (RFC 9457). */
export class HttpProblem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail?: string,
    readonly more: { readonly problems?: readonly Problem[]; readonly revision?: number; readonly losses?: readonly unknown[] } = {},
  ) {
    super(title);
  }
}

export const notFound = (what: string) => new HttpProblem(404, `There is no such ${what}`);

/** Whether an error says that the database can't be reached at present, rather than that something was wrong with a query. */
export function isDatabaseGone(error: unknown): boolean {
  if (error instanceof ConnectionError || error instanceof TimeoutError) return true;
  const { code, name, parent } = error as { code?: string; name?: string; parent?: unknown };
  if (name === 'SequelizeConnectionAcquireTimeoutError') return true;
  // 57P01 to 57P03: the server is shutting down, has crashed, or is starting up.
  if (typeof code === 'string' && /^(57P0[123]|ECONNREFUSED|ECONNRESET|EPIPE)$/.test(code)) return true;
  if (error instanceof Error && /Connection terminated|Client has encountered a connection error/.test(error.message)) return true;
  return parent !== undefined && parent !== error && isDatabaseGone(parent);
}

function asProblem(error: unknown): HttpProblem | undefined {
  if (error instanceof HttpProblem) return error;
  if (isDatabaseGone(error))
    return new HttpProblem(503, 'The database can’t be reached', 'Nothing was stored. Keep your edits; they can be saved when it is back.');
  const { type, status } = error as { type?: string; status?: number };
  if (type === 'entity.too.large') return new HttpProblem(413, 'The body is too large', 'A request has at most 2 MB.');
  if (type === 'entity.parse.failed') return new HttpProblem(400, 'The body is not JSON', (error as Error).message);
  if (status !== undefined && status >= 400 && status < 500) return new HttpProblem(status, (error as Error).message);
  return undefined;
}

export function problemHandler(log: Logger): ErrorRequestHandler {
  return (error: unknown, request, response, next) => {
    if (response.headersSent) return next(error);
    const known = asProblem(error);
    if (!known) log.error({ err: error, url: request.originalUrl }, 'request failed');
    const { status, title, detail, more } = known ?? new HttpProblem(500, 'Something went wrong on the server', 'It has been logged.');
    if (status === 412 && more.revision !== undefined) response.set('ETag', `"${more.revision}"`);
    response
      .status(status)
      .type('application/problem+json')
      .send(JSON.stringify({ type: 'about:blank', title, status, detail, ...more }));
  };
}

export const noSuchPath: RequestHandler = () => {
  throw new HttpProblem(404, 'There is nothing at this address');
};
