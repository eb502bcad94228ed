// Small helpers for the scripts that have to work before anything is installed: Node's own modules only.
import { spawn, spawnSync } from 'node:child_process';
import { createHash, randomInt } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = join(dirname(fileURLToPath(import.meta.url)), '..', '..');
export const isRoot = process.getuid?.() === 0;

export const say = (text) => process.stdout.write(`${text}\n`);

/** Says why there is no going on, and what to do. */
export class Stop extends Error {}

/** Runs a command to its end, its output shown. Throws where it fails. */
export function run(command, args, options = {}) {
  return new Promise((done, fail) => {
    const child = spawn(command, args, { cwd: ROOT, stdio: 'inherit', ...options });
    child.on('error', fail);
    child.on('exit', (code, signal) => (code === 0 ? done() : fail(new Stop(`${command} ${args.join(' ')} ended with ${signal ?? code}`))));
  });
}

/** Runs a command to its end with a dot every few seconds; what it printed is shown only where it fails. */
export function quietly(command, args, options = {}) {
  return new Promise((done, fail) => {
    const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'], ...options });
    let text = '';
    for (const stream of [child.stdout, child.stderr]) stream.setEncoding('utf8').on('data', (part) => (text += part));
    const dots = setInterval(() => process.stdout.write('.'), 3000);
    const end = () => {
      clearInterval(dots);
      process.stdout.write('\n');
    };
    child.on('error', (error) => {
      end();
      fail(error);
    });
    child.on('close', (code, signal) => {
      end();
      if (code === 0) return done();
      process.stderr.write(text);
      fail(new Stop(`${command} ${args.join(' ')} ended with ${signal ?? code}`));
    });
  });
}

/** Runs a command to its end and returns what it printed, or undefined where it failed. */
export function output(command, args, options = {}) {
  const { status, stdout } = spawnSync(command, args, { cwd: ROOT, encoding: 'utf8', ...options });
  return status === 0 ? stdout.trim() : undefined;
}

function tryPort(wanted) {
  return new Promise((done) => {
    const server = createServer();
    server.once('error', () => done(undefined));
    server.listen(wanted, '127.0.0.1', () => {
      const { port } = server.address();
      server.close(() => done(port));
    });
  });
}

/** Below the ports that the system gives to whoever calls out: a server that starts again finds its own still free. */
const [FIRST_PORT, LAST_PORT] = [15_000, 32_000];

/** The wanted port, or another where it is taken. A port that was let go of a moment ago may need a little while. */
export async function freePort(wanted = 0, patienceMs = 0) {
  for (const until = Date.now() + patienceMs; wanted > 0; await new Promise((next) => setTimeout(next, 100))) {
    const port = await tryPort(wanted);
    if (port !== undefined) return port;
    if (Date.now() >= until) break;
  }
  for (;;) {
    const port = await tryPort(randomInt(FIRST_PORT, LAST_PORT));
    if (port !== undefined) return port;
  }
}

const SKIP = new Set(['node_modules', 'dist', '.angular', '.git', '.data', '.cache']);

function* files(path) {
  if (!existsSync(path)) return;
  if (!statSync(path).isDirectory()) return void (yield path);
  for (const name of readdirSync(path).sort()) if (!SKIP.has(name)) yield* files(join(path, name));
}

/** A digest of the contents of files and folders, to tell whether a step has to be done again. */
export function digestOf(paths) {
  const hash = createHash('sha256').update(process.version);
  for (const path of paths) for (const file of files(join(ROOT, path))) hash.update(file).update(readFileSync(file));
  return hash.digest('hex');
}

/** Does a step unless it was done with the same inputs before. */
export async function unlessDone(name, inputs, products, step) {
  const stamp = join(ROOT, '.cache', `${name}.stamp`);
  const digest = digestOf(inputs);
  const done = existsSync(stamp) && readFileSync(stamp, 'utf8') === digest && products.every((path) => existsSync(join(ROOT, path)));
  if (done) return false;
  await step();
  mkdirSync(dirname(stamp), { recursive: true });
  writeFileSync(stamp, digest);
  return true;
}
