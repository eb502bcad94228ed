#!/usr/bin/env node
// Runs the command line from one file, with what the engine compiled of it the last time: most of the time that a command takes
// would be that, each time anew.
const { existsSync, readFileSync, renameSync, writeFileSync } = require('node:fs');
const { createRequire } = require('node:module');
const { join } = require('node:path');
const { pathToFileURL } = require('node:url');
const { setFlagsFromString } = require('node:v8');
const { Script } = require('node:vm');

// Most commands are over before what the engine would make faster pays for that: it is done for what runs long alone. What is
// read stays for as long as a command takes, so that a small nursery would only be copied from again and again.
for (const flag of ['--interrupt-budget=2000000', '--no-parallel-scavenge', '--semi-space-growth-factor=16']) setFlagsFromString(flag);

const file = join(__dirname, '../bundled/main.cjs');
const url = pathToFileURL(file);
const kept = `${file}.cache`;
if (!existsSync(file)) {
  console.error('ember is not built yet: run "npm run build" once.');
  process.exit(2);
}

/** What was kept; nothing where it is not there. The engine looks by itself whether it is of this file, and of this engine. */
function compiled() {
  try {
    return readFileSync(kept);
  } catch {
    return undefined;
  }
}

/** Keeps what was compiled, by one step: others may be reading it. */
function keep(script) {
  try {
    const written = `${kept}.${process.pid}`;
    writeFileSync(written, script.createCachedData());
    renameSync(written, kept);
  } catch {
    // Where nothing can be written it goes on as it is, only slower.
  }
}

const cachedData = compiled();
const script = new Script(`(function (exports, require, module, __url) {${readFileSync(file, 'utf8')}\n})`, {
  filename: file,
  cachedData,
});
const bundle = { exports: {} };
script.runInThisContext()(bundle.exports, createRequire(url), bundle, url.href);
void bundle.exports
  .main(process.argv.slice(2), (specifier) => import(specifier))
  .then((code) => {
    process.exitCode = code;
    if (cachedData === undefined || script.cachedDataRejected) keep(script);
  });
