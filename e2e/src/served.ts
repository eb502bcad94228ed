import { type ChildProcess, spawn } from 'node:child_process';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const ROOT = fileURLToPath(new URL('../..', import.meta.url));

/** A server by itself, without a browser, with somebody signed in to it. */
export interface Running {
  readonly url: string;
  readonly cookie: string;
  readonly process: ChildProcess;
}

/** Starts the built server on a database. */
export async function serve(database: string, port: number): Promise<Running> {
  const env = { ...process.env, NODE_ENV: 'production', LOG_LEVEL: 'fatal', DATABASE_URL: database, PORT: String(port) };
  const server = spawn(process.execPath, [join(ROOT, 'packages/server/dist/main.js')], { env, stdio: ['ignore', 'pipe', 'inherit'] });
  const link = await new Promise<string>((done, fail) => {
    let text = '';
    server.stdout.setEncoding('utf8').on('data', (part: string) => {
      text += part;
      const found = /EMBER_LINK (\S+)/.exec(text)?.[1];
      if (found) done(found);
    });
    server.on('exit', (code) => fail(new Error(`The server ended with ${code}`)));
  });
  const entered = await fetch(link, { redirect: 'manual' });
  return { url: new URL(link).origin, cookie: entered.headers.get('set-cookie')!.split(';')[0], process: server };
}
