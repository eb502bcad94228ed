#!/usr/bin/env node
// Runs the command line from one file, with what the engine compiled of it the last time.
const { existsSync } = require('node:fs');
const { join } = require('node:path');
const { setFlagsFromString } = require('node:v8');

// Most commands are over before what the engine would make faster pays for that: it is done for what runs long alone. What is
// read stays for as long as a command takes, so that a small nursery would only be copied from again and again.
for (const flag of ['--interrupt-budget=2000000', '--no-parallel-scavenge', '--semi-space-growth-factor=16']) setFlagsFromString(flag);

const bundled = join(__dirname, '../bundled');
if (!existsSync(join(bundled, 'main.cjs'))) {
  console.error('ember is not built yet: run "npm run build" once.');
  process.exit(2);
}
const { exports: program, keep } = require(join(bundled, 'compiled.cjs')).load(join(bundled, 'main.cjs'));
void program
  .main(process.argv.slice(2), (specifier) => import(specifier))
  .then((code) => {
    process.exitCode = code;
    keep();
  });
