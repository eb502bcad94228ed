// npm test: prepares everything, then lint, types, core (in Node and in Chromium), server, command line, web, and the
// walk in a real browser. Ends with a line `N passed, N failed`. `npm test -- core web` runs only those parts.
import { spawn } from 'node:child_process';
import { chmodSync, mkdirSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { stripVTControlCharacters } from 'node:util';
import { startPostgres } from './lib/postgres.mjs';
import { buildCode, buildWeb, checkNode, findChromium, installDependencies } from './lib/prepare.mjs';
import { ROOT, say, Stop } from './lib/run.mjs';

const wanted = process.argv.slice(2).filter((arg) => !arg.startsWith('-'));
const total = { passed: 0, failed: 0 };
let database;
let home;
/** What did not pass at its first go. */
const shaky = [];

/** Runs a command, shows what it prints, and returns that with its exit code. */
function capture(command, args, { cwd = ROOT, env = {} } = {}) {
  return new Promise((done) => {
    const child = spawn(command, args, { cwd, env: { ...process.env, ...env }, stdio: ['ignore', 'pipe', 'pipe'] });
    let text = '';
    const take = (part) => {
      text += part;
      process.stdout.write(part);
    };
    child.stdout.setEncoding('utf8').on('data', take);
    child.stderr.setEncoding('utf8').on('data', take);
    child.on('close', (code) => done({ code, text }));
    child.on('error', (error) => done({ code: 1, text: String(error) }));
  });
}

/** What a runner said of its tests: jasmine's `108 specs, 2 failures`, karma's `Executed 90 of 108 (2 FAILED)`. */
function count(coloured) {
  // Colour codes stand between the words that are looked for.
  const text = stripVTControlCharacters(coloured);
  const jasmine = [...text.matchAll(/(\d+) specs?, (\d+) failures?/g)].at(-1);
  if (jasmine) return { passed: Number(jasmine[1]) - Number(jasmine[2]), failed: Number(jasmine[2]) };
  const karma = [...text.matchAll(/Executed (\d+) of \d+(?: \((\d+) FAILED\))?/g)].at(-1);
  if (karma) return { passed: Number(karma[1]) - Number(karma[2] ?? 0), failed: Number(karma[2] ?? 0) };
  return undefined;
}

async function attempt(title, command, args, options) {
  say(`\n── ${title}`);
  const { code, text } = await capture(command, args, options);
  const counted = count(text) ?? { passed: code === 0 ? 1 : 0, failed: code === 0 ? 0 : 1 };
  // A runner that fails without a failed test (a suite that could not start, a broken hook) has failed all the same.
  if (code !== 0 && counted.failed === 0) counted.failed = 1;
  return counted;
}

async function part(name, title, command, args, options) {
  if (wanted.length > 0 && !wanted.includes(name)) return;
  let counted = await attempt(title, command, args, options);
  // What runs against the clock, over real sockets or in a real browser, may starve on a busy machine.
  // It gets another go or two, and that is told.
  for (let go = 2; counted.failed > 0 && go <= 1 + (options?.again ?? 0); go++) {
    counted = await attempt(`${title}, go ${go}`, command, args, options);
    if (counted.failed === 0) shaky.push(`${title}, at go ${go}`);
  }
  total.passed += counted.passed;
  total.failed += counted.failed;
  say(`${title}: ${counted.passed} passed, ${counted.failed} failed`);
}

const jasmine = (config) => ['--import', 'tsx', 'node_modules/jasmine/bin/jasmine.js', `--config=${config}`];

async function bundleCoreSpecs() {
  const { build } = await import('esbuild');
  const specs = readdirSync(join(ROOT, 'packages/core/src'), { recursive: true })
    .filter((file) => file.endsWith('.spec.ts'))
    .map((file) => join('packages/core/src', file));
  mkdirSync(join(ROOT, '.cache'), { recursive: true });
  await build({
    stdin: { contents: specs.map((file) => `import './${file}';`).join('\n'), resolveDir: ROOT, loader: 'ts' },
    bundle: true,
    // The package says that its files have no side effects; a spec is nothing else.
    ignoreAnnotations: true,
    format: 'iife',
    target: 'es2022',
    sourcemap: 'inline',
    outfile: join(ROOT, '.cache/core-specs.js'),
    logLevel: 'error',
  });
}

async function main() {
  checkNode();
  await installDependencies();
  const chromium = await findChromium();
  await buildCode();
  await buildWeb();
  home = mkdtempSync(join(tmpdir(), 'ember-test-'));
  // The database's own user has to get in.
  chmodSync(home, 0o755);
  database = await startPostgres(home, { durable: false });
  const env = { DATABASE_URL: database.url, CHROME_BIN: chromium, NG_CLI_ANALYTICS: 'false', FORCE_COLOR: '0' };

  await part('lint', 'Lint', 'npx', ['eslint', '.']);
  await part('lint', 'Format', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']);
  for (const config of [
    'packages/core/tsconfig.spec.json',
    'packages/server/tsconfig.spec.json',
    'packages/cli/tsconfig.spec.json',
    'e2e/tsconfig.json',
    'bench/tsconfig.json',
  ])
    await part('types', `Types of ${config}`, 'npx', ['tsc', '-p', config, '--noEmit']);
  await part('core', 'Core, in Node', process.execPath, jasmine('packages/core/jasmine.json'), { env });
  if (wanted.length === 0 || wanted.includes('core')) await bundleCoreSpecs();
  await part('core', 'Core, in Chromium', 'npx', ['karma', 'start', 'packages/core/karma.conf.cjs', '--single-run', '--no-colors'], {
    env,
  });
  await part('server', 'Server', process.execPath, jasmine('packages/server/jasmine.json'), { env, again: 1 });
  await part('cli', 'Command line', process.execPath, jasmine('packages/cli/jasmine.json'), { env });
  await part('web', 'Web', 'npx', ['ng', 'test', '--watch=false', '--no-progress'], { cwd: join(ROOT, 'packages/web'), env });
  for (const walk of readdirSync(join(ROOT, 'e2e/src')).filter((file) => file.endsWith('.e2e.ts'))) {
    const title = `In a real browser: ${walk.replace('.e2e.ts', '')}`;
    await part('e2e', title, process.execPath, [...jasmine('e2e/jasmine.json'), `e2e/src/${walk}`], { env, again: 2 });
  }
}

try {
  await main();
} catch (error) {
  total.failed++;
  process.stderr.write(`\n${error instanceof Stop ? error.message : error.stack}\n`);
} finally {
  database?.stop('immediate');
  if (home) rmSync(home, { recursive: true, force: true });
}
for (const title of shaky) say(`Passed only at another go – ${title}`);
say(`\n${total.passed} passed, ${total.failed} failed`);
process.exitCode = total.failed === 0 && total.passed > 0 ? 0 : 1;
