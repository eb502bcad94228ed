// The command line in one file: loading hundreds of them takes longer than what it is asked for.
import { rmSync } from 'node:fs';
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

export async function bundleCommandLine() {
  const { build } = await import('esbuild');
  const outdir = join(ROOT, 'packages/cli/bundled');
  rmSync(outdir, { recursive: true, force: true });
  await build({
    entryPoints: [join(ROOT, 'packages/cli/dist/main.js')],
    outfile: join(outdir, 'main.cjs'),
    bundle: true,
    minify: true,
    format: 'cjs',
    platform: 'node',
    target: 'node20',
    mainFields: ['module', 'main'],
    // What needs the server's packages loads them where they are.
    external: ['@eager-ember/server'],
    define: { 'import.meta.url': '__url' },
    plugins: [withoutLocales],
    logLevel: 'error',
  });
  // The first to run it keeps what was compiled of it.
  await quietly(process.execPath, ['packages/cli/bin/ember.cjs', 'findings', 'examples/brinewick.json']);
}
