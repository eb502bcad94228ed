// Runs a program of one file with what the engine compiled of it before: most of the time that it takes to start would be that,
// each time anew. It is put beside what is bundled.
const { readFileSync, renameSync, writeFileSync } = require('node:fs');
const { createRequire } = require('node:module');
const { pathToFileURL } = require('node:url');
const { Script } = require('node:vm');

/** What was kept; nothing where it is not there. The engine looks by itself whether it is of this file, and of this engine. */
function compiled(kept) {
  try {
    return readFileSync(kept);
  } catch {
    return undefined;
  }
}

/**
 * Loads a program; returns what it exports, and a function that keeps what was compiled of it by then, where that is not kept yet.
 * @param {string} file a script in the form of CommonJS, to which `__url` says where it is
 */
function load(file) {
  const url = pathToFileURL(file);
  const kept = `${file}.cache`;
  const cachedData = compiled(kept);
  const source = `(function (exports, require, module, __url) {${readFileSync(file, 'utf8')}\n})`;
  const script = new Script(source, { filename: file, cachedData });
  const bundle = { exports: {} };
  script.runInThisContext()(bundle.exports, createRequire(url), bundle, url.href);
  const keep = () => {
    if (cachedData !== undefined && !script.cachedDataRejected) return;
    try {
      // By one step: others may be reading it.
      const written = `${kept}.${process.pid}`;
      writeFileSync(written, script.createCachedData());
      renameSync(written, kept);
    } catch {
      // Where nothing can be written it goes on as it is, only slower.
    }
  };
  return { exports: bundle.exports, keep };
}

module.exports = { load };
