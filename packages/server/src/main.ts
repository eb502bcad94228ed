import pino from 'pino';
import { readConfig } from './config.js';
import { type RunningServer, startServer } from './server.js';

/** How long an end in order may take: the database may be gone already, and then there is nothing left to wait for. */
const LONGEST_END_MS = 5000;

/** Starts the server of this process, says its sign-in link, and ends in order when it is told to. */
export async function main(): Promise<void> {
  const config = readConfig(process.env);
  const log = pino({ level: config.LOG_LEVEL });
  /** Empty until it is started. */
  const running: { server?: RunningServer } = {};
  let closing = false;

  /** Tells who is there, stores what there is, and ends the process with a code. */
  const stop = (code: number) => {
    if (closing) return;
    closing = true;
    setTimeout(() => process.exit(code || 1), LONGEST_END_MS).unref();
    void (running.server?.close() ?? Promise.resolve()).catch(() => undefined).finally(() => process.exit(code));
  };
  process.on('SIGINT', () => stop(0)).on('SIGTERM', () => stop(0));
  // What nobody has caught may have left anything half done: nothing goes on after it. Who started this server starts it again.
  const fail = (error: unknown) => {
    log.fatal({ err: error }, 'an error that nobody caught: the server stores its rooms and ends');
    stop(1);
  };
  process.on('uncaughtException', fail).on('unhandledRejection', fail);
  // The start command holds the other end: where it dies without a word, nothing is left running.
  if (process.connected) process.on('disconnect', () => stop(0));

  running.server = await startServer(config, log);
  process.stdout.write(`EMBER_LINK ${running.server.signIn}\n`);
}
