// npm run soak: a room whose server is killed at random moments, fifty times; `npm run soak -- 10 7` kills ten times from seed 7.
import { inOneRun } from './lib/one-run.mjs';
import { buildCode, installDependencies } from './lib/prepare.mjs';
import { run } from './lib/run.mjs';

await inOneRun('soak', async () => {
  await installDependencies();
  await buildCode();
  await run(process.execPath, ['--import', 'tsx', 'e2e/src/soak.ts', ...process.argv.slice(2)]);
});
