// A run that starts a database, a program that does not end when it is told to, and one that is started by that one; says which,
// and waits to be ended.
import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { beginRun } from '../lib/one-run.mjs';
import { startPostgres } from '../lib/postgres.mjs';

const STUBBORN = `for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => undefined); setInterval(() => undefined, 1000);`;
const PARENT = `const child = require('node:child_process').spawn(process.execPath, ['-e', ${JSON.stringify(STUBBORN)}], { detached: true, stdio: 'ignore' });
process.stdout.write(child.pid + '\\n'); ${STUBBORN}`;

const { home, close } = beginRun('trial');
const { data } = await startPostgres(home, { durable: false });
const database = Number(readFileSync(join(data, 'postmaster.pid'), 'utf8').split('\n')[0]);
const parent = spawn(process.execPath, ['-e', PARENT], { detached: true, stdio: ['ignore', 'pipe', 'ignore'] });
const [child] = await parent.stdout.take(1).toArray();
process.stdout.write(`\n${JSON.stringify({ home, processes: [database, parent.pid, Number(String(child))] })}\n`);
// Who has nothing to say any more comes to its end.
process.stdin.resume().on('end', () => void close().then(() => process.exit(0)));
