// npm test: prepares everything, then lint, types, core (in Node and in Chromium), server, command line, web, and walks in a
// real browser. Ends with a line `N passed, N failed`. `npm test -- core web` runs only those parts, `npm test -- fights` one
// walk, and what begins with dashes is passed on to Jasmine: `npm test -- fights --filter="fell a lamprey"`.
import { mkdirSync, readdirSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { runInLanes } from './lib/lanes.mjs';
import { beginRun } from './lib/one-run.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { buildCode, buildWeb, checkNode, findChromium, installDependencies } from './lib/prepare.mjs';
import { ROOT, say, Stop } from './lib/run.mjs';

const wanted = process.argv.slice(2).filter((arg) => !arg.startsWith('-'));
const passedOn = process.argv.slice(2).filter((arg) => arg.startsWith('-'));
/** More than two at once want more memory than a small machine has. */
const LANES = Math.min(2, availableParallelism());

const total = { passed: 0, failed: 0 };
const running = new Set();
const conclude = () => say(`\n${total.passed} passed, ${total.failed} failed`);

const run = beginRun('test', () => {
  if (running.size > 0) say(`Not ended yet: ${[...running].join('; ')}`);
  total.failed += Math.max(1, running.size);
  conclude();
});

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

/** All parts, those that take long first: in the end no lane waits long for the other. */
function allParts(env) {
  const jasmine = (name, title, config, ...files) => ({
    name,
    title,
    command: process.execPath,
    args: ['--import', 'tsx', 'node_modules/jasmine/bin/jasmine.js', `--config=${config}`, ...passedOn, ...files],
    env,
  });
  const walks = readdirSync(join(ROOT, 'e2e/src'))
    .filter((file) => file.endsWith('.e2e.ts'))
    .map((file) => ({
      ...jasmine('e2e', `In a real browser: ${file.replace('.e2e.ts', '')}`, 'e2e/jasmine.json', `e2e/src/${file}`),
      walk: file.replace('.e2e.ts', ''),
    }));
  const types = [
    'packages/core/tsconfig.spec.json',
    'packages/server/tsconfig.spec.json',
    'packages/cli/tsconfig.spec.json',
    'e2e/tsconfig.json',
    'bench/tsconfig.json',
  ];
  return [
    {
      name: 'web',
      title: 'Web',
      command: 'npx',
      args: ['ng', 'test', '--watch=false', '--no-progress'],
      cwd: join(ROOT, 'packages/web'),
      env,
    },
    jasmine('core', 'Core, in Node', 'packages/core/jasmine.json'),
    {
      name: 'core',
      title: 'Core, in Chromium',
      command: 'npx',
      args: ['karma', 'start', 'packages/core/karma.conf.cjs', '--single-run', '--no-colors'],
      env,
    },
    jasmine('server', 'Server', 'packages/server/jasmine.json'),
    jasmine('cli', 'Command line', 'packages/cli/jasmine.json'),
    jasmine('scripts', 'Scripts', 'scripts/jasmine.json'),
    ...walks,
    { name: 'lint', title: 'Lint', command: 'npx', args: ['eslint', '.'] },
    { name: 'lint', title: 'What nobody uses', command: 'npx', args: ['knip', '--no-progress'] },
    { name: 'lint', title: 'Format', command: 'npx', args: ['prettier', '--check', '--log-level', 'warn', '.'] },
    ...types.map((config) => ({ name: 'types', title: `Types of ${config}`, command: 'npx', args: ['tsc', '-p', config, '--noEmit'] })),
  ];
}

try {
  checkNode();
  await installDependencies();
  const chromium = await findChromium();
  await buildCode();
  await buildWeb();
  const { url } = await startPostgres(run.home, { durable: false });
  const env = { DATABASE_URL: url, CHROME_BIN: chromium, NG_CLI_ANALYTICS: 'false', FORCE_COLOR: '0' };
  const all = allParts(env);
  const unknown = wanted.filter((word) => !all.some(({ name, walk }) => word === name || word === walk));
  if (unknown.length > 0)
    throw new Stop(
      `There is no part ${unknown.join(', ')}. There are: ${[...new Set(all.flatMap(({ name, walk }) => walk ?? name)), 'e2e'].join(', ')}.`,
    );
  const parts = all.filter(({ name, walk }) => wanted.length === 0 || wanted.includes(name) || wanted.includes(walk));
  if (parts.some(({ name }) => name === 'core')) await bundleCoreSpecs();
  const counted = ({ passed, failed }) => {
    total.passed += passed;
    total.failed += failed;
  };
  await runInLanes(parts, { lanes: LANES, running, ended: run.ended, counted });
} catch (error) {
  if (!run.ended()) {
    total.failed++;
    process.stderr.write(`\n${error instanceof Stop ? error.message : error.stack}\n`);
  }
}
if (!run.ended()) {
  await run.close();
  conclude();
  process.exitCode = total.failed === 0 && total.passed > 0 ? 0 : 1;
}
