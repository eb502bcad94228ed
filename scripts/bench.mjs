// npm run bench: every figure beside a reference measured in the same run. Prints a table and writes bench/results.json.
import { inOneRun } from './lib/one-run.mjs';
import { buildCode, buildWeb, findChromium, installDependencies } from './lib/prepare.mjs';
import { run } from './lib/run.mjs';

await inOneRun('bench', async () => {
  await installDependencies();
  await buildCode();
  await buildWeb();
  const env = { ...process.env, CHROME_BIN: await findChromium() };
  await run(process.execPath, ['--expose-gc', '--import', 'tsx', 'bench/src/main.ts', ...process.argv.slice(2)], { env });
});
