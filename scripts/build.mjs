// npm run build: all that is served or run from dist folders.
import { buildCode, buildWeb, installDependencies } from './lib/prepare.mjs';

await installDependencies();
await buildCode();
await buildWeb();
