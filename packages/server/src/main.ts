import pino from 'pino';
import { readConfig } from './config.js';
import { startServer } from './server.js';

const config = readConfig(process.env);
const log = pino({ level: config.LOG_LEVEL });
const server = await startServer(config, log);
process.stdout.write(`EMBER_LINK ${server.signIn}\n`);

let closing = false;
const stop = () => {
  if (closing) return;
  closing = true;
  // The database may be gone already; then there is nothing left to wait for.
  setTimeout(() => process.exit(1), 5000).unref();
  void server.close().finally(() => process.exit(0));
};
process.on('SIGINT', stop).on('SIGTERM', stop);
// The start command holds the other end: where it dies without a word, nothing is left running.
if (process.connected) process.on('disconnect', stop);
