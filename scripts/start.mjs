// npm start: prepares everything, starts the database and the server, prints one link, and stops all it started.
import { fork } from 'node:child_process';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { keptUp } from './lib/kept-up.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { buildCode, buildWeb, checkNode, installDependencies } from './lib/prepare.mjs';
import { freePort, ROOT, say, Stop } from './lib/run.mjs';

const home = process.env.EMBER_HOME ?? join(ROOT, '.data');
let database;
let endServer;
let stopping = false;

async function stop(code) {
  if (stopping) return;
  stopping = true;
  if (endServer) {
    say('\nStopping …');
    await endServer();
  }
  database?.stop();
  process.exit(code);
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
  const env = {
    ...process.env,
    NODE_ENV: 'production',
    LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
    DATABASE_URL: process.env.DATABASE_URL ?? database.url,
    PORT: String(port),
    CONTROL_SOCKET: process.env.CONTROL_SOCKET ?? join(home, 'control.sock'),
    WEB_ROOT: join(ROOT, 'packages/web/dist/browser'),
    DEMO_RULESET: join(ROOT, 'examples/brinewick.json'),
  };
  let links = 0;
  const start = (ready) => {
    const server = fork(join(ROOT, 'packages/server/bin/server.cjs'), [], { cwd: ROOT, stdio: ['ignore', 'pipe', 'inherit', 'ipc'], env });
    createInterface({ input: server.stdout }).on('line', (line) => {
      if (!line.startsWith('EMBER_LINK ')) return say(line);
      ready();
      const what =
        links++ === 0 ? 'Eager Ember is ready. Open this link, once:' : 'It is back. Who is signed in stays so; for anybody else, once:';
      say(`\n${what}\n\n  ${line.slice(11)}\n\nCtrl-C stops it.`);
    });
    return server;
  };
  endServer = keptUp({ start, say, gaveUp: () => stop(1) });
} catch (error) {
  process.stderr.write(`\n${error instanceof Stop ? error.message : error.stack}\n`);
  void stop(1);
}
