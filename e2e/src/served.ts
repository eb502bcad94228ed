import { type ChildProcess, spawn } from 'node:child_process';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { DEMO } from './trial.js';

const ROOT = fileURLToPath(new URL('../..', import.meta.url));

/** The built server as a process, once it has said that it is there, with the sign-in link that it has said. */
export async function started(settings: Readonly<Record<string, string>>): Promise<{ process: ChildProcess; link: string }> {
  const env = { ...process.env, NODE_ENV: 'production', LOG_LEVEL: 'fatal', ...settings };
  const server = spawn(process.execPath, [join(ROOT, 'packages/server/bin/server.cjs')], { env, stdio: ['ignore', 'pipe', 'inherit'] });
  const link = await new Promise<string>((done, fail) => {
    let text = '';
    server.stdout.setEncoding('utf8').on('data', (part: string) => {
      text += part;
      const found = /EMBER_LINK (\S+)/.exec(text)?.[1];
      if (found) done(found);
    });
    server.on('exit', (code) => fail(new Error(`The server ended with ${code}`)));
  });
  return { process: server, link };
}

/** A server by itself, without a browser, with somebody signed in to it. */
export class Running {
  private constructor(
    readonly url: string,
    readonly cookie: string,
    readonly process: ChildProcess,
  ) {}

  /** Starts the built server on a database. */
  static async on(database: string, port: number, settings: Readonly<Record<string, string>> = {}): Promise<Running> {
    const { process, link } = await started({ DATABASE_URL: database, PORT: String(port), DEMO_RULESET: DEMO, ...settings });
    const entered = await fetch(link, { redirect: 'manual' });
    return new Running(new URL(link).origin, entered.headers.get('set-cookie')!.split(';')[0], process);
  }

  /** What a write of somebody who is signed in carries. */
  get headers(): Record<string, string> {
    return { cookie: this.cookie, 'x-eager-ember': '1', 'content-type': 'application/json' };
  }

  async post<T>(path: string, body: unknown): Promise<T> {
    const answer = await fetch(this.url + path, { method: 'POST', headers: this.headers, body: JSON.stringify(body) });
    if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
    return (await answer.json()) as T;
  }
}
