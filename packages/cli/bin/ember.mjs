#!/usr/bin/env node
// Runs the command line from one file, with what the engine compiled of it the last time: most of the time that a command takes
// would be that, each time anew.
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { fileURLToPath } from 'node:url';
import { Script } from 'node:vm';

const url = new URL('../bundled/main.cjs', import.meta.url);
const file = fileURLToPath(url);
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
const module = { exports: {} };
script.runInThisContext()(module.exports, createRequire(url), module, url.href);
process.exitCode = await module.exports.main(process.argv.slice(2), (specifier) => import(specifier));
if (cachedData === undefined || script.cachedDataRejected) keep(script);
