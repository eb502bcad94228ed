import { spawn } from 'node:child_process';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { startPostgres } from '../../scripts/lib/postgres.mjs';
import { freePort } from '../../scripts/lib/run.mjs';
import { median, rounded, type Row } from './measure.js';

const at = (path: string) => fileURLToPath(new URL(`../../${path}`, import.meta.url));
const ROUNDS = 9;
const ONE_FILE = [at('packages/server/bin/server.cjs')];
const ALL_FILES = ['-e', `import(${JSON.stringify(at('packages/server/dist/main.js'))}).then(({ main }) => main())`];

/** Milliseconds from the start of a server's process to its sign-in link. */
async function milliseconds(args: readonly string[], settings: Readonly<Record<string, string>>): Promise<number> {
  const began = performance.now();
  const server = spawn(process.execPath, args, { env: { ...process.env, ...settings }, stdio: ['ignore', 'pipe', 'inherit'] });
  const gone = new Promise((done) => server.once('exit', done));
  await new Promise<void>((done, fail) => {
    server.stdout.setEncoding('utf8').on('data', (text: string) => text.includes('EMBER_LINK') && done());
    server.once('exit', (code) => fail(new Error(`The server ended with ${code}`)));
  });
  const took = performance.now() - began;
  server.kill('SIGKILL');
  await gone;
  return took;
}

/** How long a server takes to be there, whose database has all it needs; beside the same from the files that it is made of, in turn. */
export async function starting(): Promise<Row> {
  const home = mkdtempSync(join(tmpdir(), 'ember-starting-'));
  chmodSync(home, 0o755);
  const cluster = await startPostgres(home, { durable: true });
  try {
    const settings = {
      DATABASE_URL: cluster.url,
      DEMO_RULESET: at('examples/brinewick.json'),
      NODE_ENV: 'production',
      LOG_LEVEL: 'fatal',
    };
    const times: [number[], number[]] = [[], []];
    // The first makes the tables, and keeps what was compiled.
    for (let round = 0; round <= ROUNDS; round++)
      for (const [n, args] of [ONE_FILE, ALL_FILES].entries()) {
        const took = await milliseconds(args, { ...settings, PORT: String(await freePort()) });
        if (round > 0) times[n].push(took);
      }
    const [value, reference] = times.map(median);
    return {
      what: 'the server, from its start to its sign-in link',
      value: rounded(value),
      reference: rounded(reference),
      unit: 'ms',
      referenceIs: 'the same from all of its files',
      ratio: `${(value / reference).toFixed(2)}x`,
      reach: 'none set',
    };
  } finally {
    cluster.stop('immediate');
    rmSync(home, { recursive: true, force: true });
  }
}
