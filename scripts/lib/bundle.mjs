// Programs in one file: loading hundreds of them takes longer than most of what is asked for.
import { copyFileSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { quietly, ROOT } from './run.mjs';

/** The validator's words in all languages but its own, which nobody asks for. */
const withoutLocales = {
  name: 'without-locales',
  setup: (build) => {
    build.onResolve({ filter: /\/locales\/index\.js$/ }, () => ({ path: 'locales', namespace: 'none' }));
    build.onLoad({ filter: /.*/, namespace: 'none' }, () => ({ contents: 'export {};' }));
  },
};

/** Makes a folder `bundled` in a package: a file for each entry, beside what runs them. Returns where it is. */
async function bundle(folder, entries, options) {
  const { build } = await import('esbuild');
  const outdir = join(ROOT, folder, 'bundled');
  rmSync(outdir, { recursive: true, force: true });
  mkdirSync(outdir);
  await build({
    entryPoints: Object.fromEntries(Object.entries(entries).map(([name, file]) => [name, join(ROOT, folder, file)])),
    outdir,
    outExtension: { '.js': '.cjs' },
    bundle: true,
    format: 'cjs',
    platform: 'node',
    target: 'node20',
    mainFields: ['module', 'main'],
    define: { 'import.meta.url': '__url' },
    plugins: [withoutLocales],
    logLevel: 'error',
    ...options,
  });
  copyFileSync(join(ROOT, 'scripts/lib/compiled.cjs'), join(outdir, 'compiled.cjs'));
  return outdir;
}

export async function bundleCommandLine() {
  // What needs the server's packages loads them where they are.
  await bundle('packages/cli', { main: 'dist/main.js', hunter: 'dist/hunter.js' }, { minify: true, external: ['@eager-ember/server'] });
  // The first to run it keeps what was compiled of it.
  await quietly(process.execPath, ['packages/cli/bin/ember.cjs', 'findings', 'examples/brinewick.json']);
}

export async function bundleServer() {
  const outdir = await bundle(
    'packages/server',
    { main: 'dist/main.js', thread: 'dist/drafts/worker.js' },
    {
      // What packages try to load, and go on without.
      external: ['bufferutil', 'utf-8-validate', 'pg-native', 'pg-hstore'],
      // Models are told apart by the names of their classes.
      keepNames: true,
      // Files without side effects that are also loaded later on would be left out where they are needed at once.
      ignoreAnnotations: true,
    },
  );
  // The server finds the program of its thread by this name, wherever it runs from.
  const loaded = "load(fileURLToPath(new URL('thread.cjs', import.meta.url))).keep();";
  writeFileSync(
    join(outdir, 'worker.js'),
    `import { fileURLToPath } from 'node:url';\nimport compiled from './compiled.cjs';\n\ncompiled.${loaded}\n`,
  );
}
