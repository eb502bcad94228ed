// npm run soak: a room whose server is killed at random moments, and a server that is sent what it should not be sent; `npm run soak --
// kills 10 7` kills ten times from seed 7, `npm run soak -- fuzz 0.1` sends a tenth of it.
import { inOneRun } from './lib/one-run.mjs';
import { buildCode, installDependencies } from './lib/prepare.mjs';
import { run } from './lib/run.mjs';

await inOneRun('soak', async () => {
  await installDependencies();
  await buildCode();
  await run(process.execPath, ['--import', 'tsx', 'e2e/src/soak.ts', ...process.argv.slice(2)]);
});
