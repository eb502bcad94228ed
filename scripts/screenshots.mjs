// npm run screenshots: one picture of each main view, from demo data, into docs/screenshots.
import { inOneRun } from './lib/one-run.mjs';
import { buildCode, buildWeb, findChromium, installDependencies } from './lib/prepare.mjs';
import { run } from './lib/run.mjs';

await inOneRun('screenshots', async () => {
  await installDependencies();
  await buildCode();
  await buildWeb();
  await run(process.execPath, ['--import', 'tsx', 'e2e/src/screenshots.ts'], { env: { ...process.env, CHROME_BIN: await findChromium() } });
});
