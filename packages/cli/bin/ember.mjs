#!/usr/bin/env node
import { existsSync } from 'node:fs';

const built = new URL('../dist/main.js', import.meta.url);
if (!existsSync(built)) {
  console.error('ember is not built yet: run "npm run build" once.');
  process.exit(2);
}
const { main } = await import(built.href);
process.exitCode = await main(process.argv.slice(2));
