// A run of a script that starts servers, browsers and databases, and leaves none of them behind.
import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { chmodSync, mkdirSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { MARK } from './leftovers.mjs';
import { say, Stop } from './run.mjs';

const SIGNALS = ['SIGINT', 'SIGTERM', 'SIGHUP'];
const PARENT_EVERY_MS = 1000;

/** Who has started this: the parent, which under npm may be a shell, and its parent. */
function startedBy() {
  try {
    const [, above] = /^PPid:\s+(\d+)$/m.exec(readFileSync(`/proc/${process.ppid}/status`, 'utf8'));
    return `${process.ppid} ${above}`;
  } catch {
    return String(process.ppid);
  }
}

/**
 * Begins a run: from here on whatever is started is marked as its own, and writes its temporary files below its folder.
 * Whether it comes to its end, is told to end, or is killed: what it has started ends with it, and its folder goes.
 * @param {string} name what its folder is called after
 * @param {(signal: string) => void} told told of the signal that ends it, once all is cleared away
 * @returns {{ home: string, ended: () => boolean, close: () => Promise<void> }}
 */
export function beginRun(name, told = () => undefined) {
  const home = mkdtempSync(join(tmpdir(), `ember-${name}-`));
  // The database's own user has to get in.
  chmodSync(home, 0o755);
  const temporary = join(home, 'tmp');
  mkdirSync(temporary);
  chmodSync(temporary, 0o1777);
  const within = process.env[MARK];
  const run = `${within === undefined ? '' : `${within}/`}${randomBytes(9).toString('hex')}`;
  const script = fileURLToPath(new URL('caretaker.mjs', import.meta.url));
  // In a group of its own, and without the mark: nothing that ends the run ends it as well.
  const caretaker = spawn(process.execPath, [script, run, home], { detached: true, stdio: ['pipe', 'ignore', 'inherit'] });
  const cleared = new Promise((done) => caretaker.once('exit', done));
  process.env[MARK] = run;
  process.env.TMPDIR = temporary;

  let ending = false;
  const close = async () => {
    clearInterval(watch);
    caretaker.stdin.end();
    await cleared;
  };
  const end = async (signal) => {
    if (ending) return;
    ending = true;
    say(`\nEnded by ${signal}: clearing away …`);
    await close();
    told(signal);
    for (const each of SIGNALS) process.removeAllListeners(each);
    process.kill(process.pid, signal);
  };
  for (const signal of SIGNALS) process.on(signal, () => void end(signal));
  // Nobody reads what it says any more: the terminal was closed, or a pipe.
  for (const stream of [process.stdout, process.stderr]) stream.on('error', () => void end('SIGHUP'));
  // npm passes not every signal on, and can itself be killed: its script then has nobody to run for.
  const began = startedBy();
  const watch = setInterval(() => {
    if (process.env.npm_lifecycle_event !== undefined && startedBy() !== began) void end('SIGHUP');
  }, PARENT_EVERY_MS);
  watch.unref();
  return { home, ended: () => ending, close };
}

/** Does something as a run of its own. What goes wrong in it is said, and is its exit code. */
export async function inOneRun(name, work) {
  const { ended, close } = beginRun(name);
  try {
    await work();
  } catch (error) {
    if (ended()) return;
    process.stderr.write(`\n${error instanceof Stop ? error.message : error.stack}\n`);
    process.exitCode = 1;
  }
  if (!ended()) await close();
}
