import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';

const { load } = createRequire(import.meta.url)('./compiled.cjs');

describe('A program of one file', () => {
  let folder;
  let file;
  const kept = () => `${file}.cache`;

  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'ember-compiled-'));
    file = join(folder, 'program.cjs');
    writeFileSync(file, `module.exports = { add: (a, b) => a + b, where: __url, os: require('node:os').EOL };`);
  });
  afterEach(() => rmSync(folder, { recursive: true, force: true }));

  it('is loaded with what it exports, and knows where it is', () => {
    const { add, where, os } = load(file).exports;
    expect([add(1, 2), where, os]).toEqual([3, pathToFileURL(file).href, '\n']);
  });

  it('does the same with what was compiled of it before', () => {
    load(file).keep();
    const before = readFileSync(kept());
    const again = load(file);
    again.keep();
    expect(again.exports.add(1, 2)).toBe(3);
    expect(readFileSync(kept()).equals(before)).toBeTrue();
  });

  it('does not mind what was kept of another, and keeps its own instead', () => {
    writeFileSync(kept(), 'nothing of the kind');
    const { exports: program, keep } = load(file);
    expect(program.add(1, 2)).toBe(3);
    keep();
    expect(readFileSync(kept()).length).toBeGreaterThan(100);
  });

  it('goes on where nothing can be kept', () => {
    const { exports: program, keep } = load(file);
    rmSync(folder, { recursive: true });
    keep();
    expect(existsSync(kept())).toBeFalse();
    expect(program.add(1, 2)).toBe(3);
  });
});
