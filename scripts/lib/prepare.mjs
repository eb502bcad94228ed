// What has to be there before the workbench can start or be tested.
import { bundleCommandLine, bundleServer } from './bundle.mjs';
import { existsSync } from 'node:fs';
import { MARK } from './leftovers.mjs';
import { isRoot, output, quietly, run, say, Stop, unlessDone } from './run.mjs';

const MANIFESTS = [
  'package.json',
  'package-lock.json',
  'packages/core/package.json',
  'packages/server/package.json',
  'packages/cli/package.json',
  'packages/web/package.json',
  'e2e/package.json',
  'bench/package.json',
];
const CORE = ['packages/core/src', 'packages/core/tsconfig.json', 'tsconfig.base.json'];

export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 16)) throw new Stop(`Node 20.16 or later is needed; this is ${process.versions.node}.`);
}

/** Installs the packages that the lock file names. */
export async function installDependencies() {
  await unlessDone('install', MANIFESTS, ['node_modules/.package-lock.json'], async () => {
    say('Installing packages (a minute or two, once) …');
    await quietly('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
  });
}

/** Builds the core, the server and the command line. */
export async function buildCode() {
  const products = [
    'packages/core/dist/index.js',
    'packages/server/dist/main.js',
    'packages/server/bundled/main.cjs',
    'packages/cli/dist/main.js',
    'packages/cli/bundled/main.cjs',
  ];
  await unlessDone(
    'code',
    [
      ...CORE,
      'packages/server/src',
      'packages/server/tsconfig.json',
      'packages/cli/src',
      'packages/cli/tsconfig.json',
      'scripts/lib/bundle.mjs',
      'scripts/lib/compiled.cjs',
      'package-lock.json',
    ],
    products,
    async () => {
      say('Building the core, the server and the command line …');
      await quietly('npx', ['tsc', '-b', 'packages/core', 'packages/server', 'packages/cli', '--force']);
      await bundleServer();
      await bundleCommandLine();
    },
  );
}

/** Builds the workbench. */
export async function buildWeb() {
  const inputs = [
    ...CORE,
    'packages/web/src',
    'packages/web/public',
    'packages/web/angular.json',
    'packages/web/tsconfig.json',
    'packages/web/tsconfig.app.json',
    'package-lock.json',
  ];
  await unlessDone('web', inputs, ['packages/web/dist/browser/index.html'], async () => {
    say('Building the workbench (half a minute) …');
    await quietly('npx', ['ng', 'build', '--configuration', 'production'], {
      cwd: new URL('../../packages/web', import.meta.url).pathname,
      env: { ...process.env, NG_CLI_ANALYTICS: 'false' },
    });
  });
}

/** Installs a Debian package where that is allowed, and says how to where it is not. */
export async function installDebian(packages, why) {
  const command = `apt-get install -y --no-install-recommends ${packages.join(' ')}`;
  if (!isRoot || output('which', ['apt-get']) === undefined) throw new Stop(`${why} Install it with:\n\n  sudo ${command}\n`);
  say(`${why} Installing ${packages.join(', ')} …`);
  // A package that is being set up is not to be ended in the middle of it.
  const { [MARK]: _run, TMPDIR: _folder, ...rest } = process.env;
  const env = { ...rest, DEBIAN_FRONTEND: 'noninteractive' };
  await run('apt-get', ['update', '-qq'], { env });
  await run('apt-get', command.split(' ').slice(1).concat('-qq'), { env });
}

/** The browser that the tests drive. */
export async function findChromium() {
  const known = [process.env.CHROME_BIN, '/usr/bin/chromium', '/usr/bin/chromium-browser'].filter(Boolean);
  if (!known.some((path) => existsSync(path))) await installDebian(['chromium'], 'The tests drive Debian’s Chromium, which is missing.');
  return known.find((path) => existsSync(path)) ?? '/usr/bin/chromium';
}
