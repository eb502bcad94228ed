// npm start: prepares everything, starts the database and the server, prints one link, and stops all it started.
import { fork } from 'node:child_process';
import { join } from 'node:path';
import { startPostgres } from './lib/postgres.mjs';
import { buildCode, buildWeb, checkNode, installDependencies } from './lib/prepare.mjs';
import { freePort, ROOT, say, Stop } from './lib/run.mjs';

const home = process.env.EMBER_HOME ?? join(ROOT, '.data');
let database;
let server;
let stopping = false;

function stop(code) {
  if (stopping) return;
  stopping = true;
  const end = () => {
    database?.stop();
    process.exit(code);
  };
  if (!server || server.exitCode !== null || server.signalCode !== null) return end();
  say('\nStopping …');
  server.once('exit', end);
  server.kill('SIGTERM');
}
process.on('SIGINT', () => stop(0));
process.on('SIGTERM', () => stop(0));
process.on('SIGHUP', () => stop(0));

try {
  checkNode();
  await installDependencies();
  if (process.env.DATABASE_URL === undefined) database = await startPostgres(home);
  await buildCode();
  await buildWeb();
  const port = await freePort(Number(process.env.PORT ?? 4600));
  server = fork(join(ROOT, 'packages/server/dist/main.js'), [], {
    cwd: ROOT,
    stdio: ['ignore', 'pipe', 'inherit', 'ipc'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
      DATABASE_URL: process.env.DATABASE_URL ?? database.url,
      PORT: String(port),
      WEB_ROOT: join(ROOT, 'packages/web/dist/browser'),
      DEMO_RULESET: join(ROOT, 'examples/brinewick.json'),
    },
  });
  server.stdout.setEncoding('utf8').on('data', (text) => {
    for (const line of text.split('\n').filter(Boolean)) {
      if (line.startsWith('EMBER_LINK ')) say(`\nEager Ember is ready. Open this link, once:\n\n  ${line.slice(11)}\n\nCtrl-C stops it.`);
      else say(line);
    }
  });
  server.on('exit', (code, signal) => {
    if (stopping) return;
    say(`The server ended (${signal ?? code}).`);
    stop(1);
  });
} catch (error) {
  process.stderr.write(`\n${error instanceof Stop ? error.message : error.stack}\n`);
  stop(1);
}
