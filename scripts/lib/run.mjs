// Small helpers for the scripts that have to work before anything is installed: Node's own modules only.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
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

/** Runs a command to its end and returns what it printed, or undefined where it failed. */
export function output(command, args, options = {}) {
  const { status, stdout } = spawnSync(command, args, { cwd: ROOT, encoding: 'utf8', ...options });
  return status === 0 ? stdout.trim() : undefined;
}

export function freePort(wanted = 0) {
  return new Promise((done) => {
    const server = createServer();
    server.once('error', () => done(freePort(0)));
    server.listen(wanted, '127.0.0.1', () => {
      const { port } = server.address();
      server.close(() => done(port));
    });
  });
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
