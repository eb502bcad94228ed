// npm test: builds everything, and runs lint, types, core (in Node and in Chromium), server, command line, web, and walks in a
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

/** All specs of the core as one program, for Node and for Chromium. */
const CORE_SPECS = '.cache/core-specs.js';

/** The walks in a real browser, each in a file of its own. */
const walks = readdirSync(join(ROOT, 'e2e/src')).flatMap((file) => /^(.*)\.e2e\.ts$/.exec(file)?.[1] ?? []);

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
    outfile: join(ROOT, CORE_SPECS),
    logLevel: 'error',
  });
}

/** All parts, those that take long first: in the end no lane waits long for the other. */
function allParts(env) {
  const jasmineWith = (loader, name, title, ...args) => ({
    name,
    title,
    command: process.execPath,
    args: [...loader, 'node_modules/jasmine/bin/jasmine.js', ...passedOn, ...args],
    env,
  });
  const jasmine = (name, title, config, ...files) => jasmineWith(['--import', 'tsx'], name, title, `--config=${config}`, ...files);
  // Who asks for all walks and for one of them gets all.
  const walked = wanted.includes('e2e') ? [] : walks.filter((walk) => wanted.includes(walk));
  const types = [
    'packages/core/tsconfig.spec.json',
    'packages/server/tsconfig.spec.json',
    'packages/cli/tsconfig.spec.json',
    'e2e',
    'bench',
  ];
  const [code, web] = ['Building the core, the server and the command line', 'Building the workbench'];
  return [
    { name: 'build', title: code, work: buildCode },
    { name: 'build', title: web, after: code, work: buildWeb },
    // The very file that Chromium is given.
    jasmineWith(['--enable-source-maps'], 'core', 'Core, in Node', '--helper=scripts/lib/patience.cjs', CORE_SPECS),
    {
      name: 'core',
      title: 'Core, in Chromium',
      command: 'npx',
      args: ['karma', 'start', 'packages/core/karma.conf.cjs', '--single-run', '--no-colors'],
      env,
    },
    {
      name: 'web',
      after: code,
      title: 'Web',
      command: 'npx',
      args: ['ng', 'test', '--watch=false', '--no-progress'],
      cwd: join(ROOT, 'packages/web'),
      env,
    },
    { ...jasmine('server', 'Server', 'packages/server/jasmine.json'), after: code },
    { ...jasmine('cli', 'Command line', 'packages/cli/jasmine.json'), after: code },
    { ...jasmine('scripts', 'Scripts', 'scripts/jasmine.json'), after: code },
    { name: 'lint', title: 'Lint', command: 'npx', args: ['eslint', '.'] },
    { name: 'lint', title: 'What nobody uses', command: 'npx', args: ['knip', '--no-progress'] },
    { name: 'lint', title: 'Format', command: 'npx', args: ['prettier', '--check', '--log-level', 'warn', '.'] },
    // In one go: what they share is read once.
    { name: 'types', title: 'Types of specs, walks and benchmarks', after: code, command: 'npx', args: ['tsc', '-b', ...types] },
    {
      ...jasmine('e2e', 'In a real browser', 'e2e/jasmine.json', ...walked.map((walk) => `e2e/src/${walk}.e2e.ts`)),
      after: web,
      // The walks are shared out between as many processes as there are lanes, each with one workbench for all of its walks.
      wide: walked.length !== 1,
    },
  ];
}

try {
  checkNode();
  // Packages of npm come while Debian sets up its own.
  const outside = async () => ({ chromium: await findChromium(), url: (await startPostgres(run.home, { durable: false })).url });
  const [{ chromium, url }] = await Promise.all([outside(), installDependencies()]);
  const env = { DATABASE_URL: url, CHROME_BIN: chromium, NG_CLI_ANALYTICS: 'false', FORCE_COLOR: '0' };
  const all = allParts(env);
  const known = [...new Set(all.map(({ name }) => name)), ...walks];
  const unknown = wanted.filter((word) => !known.includes(word));
  if (unknown.length > 0) throw new Stop(`There is no part ${unknown.join(', ')}. There are: ${known.join(', ')}.`);
  const named = wanted.map((word) => (walks.includes(word) ? 'e2e' : word));
  const parts = all.filter(({ name }) => wanted.length === 0 || name === 'build' || named.includes(name));
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
