import { execFileSync } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './lib/run.mjs';

const CORE = join(ROOT, 'packages/core');

describe('The README of the core', () => {
  it('has a program in its parts, which does what it says', () => {
    const readme = readFileSync(join(CORE, 'README.md'), 'utf8');
    const parts = [...readme.matchAll(/^```js\n([\s\S]*?)^```$/gm)].map(([, code]) => code);
    expect(parts.length).toBe(5);
    // Inside the tree, so that the package is found by its name as users find it, and where no lint looks: it may run beside this.
    const program = join(ROOT, '.cache/readme-program.mjs');
    mkdirSync(join(ROOT, '.cache'), { recursive: true });
    try {
      writeFileSync(program, parts.join('\n'));
      const printed = execFileSync(process.execPath, [program], { encoding: 'utf8' }).trim().split('\n');
      const promised = parts.flatMap((code) => [...code.matchAll(/console\.log\(.*\); \/\/ (.*)$/gm)].map(([, words]) => words));
      expect(promised.length).toBe(3);
      expect(printed).toEqual(promised);
    } finally {
      rmSync(program, { force: true });
    }
  });

  it('is published with a licence, the engines it runs on, and source maps that hold their sources', () => {
    const { files, engines } = JSON.parse(readFileSync(join(CORE, 'package.json'), 'utf8'));
    expect(files).toEqual(['dist', 'LICENSE', 'README.md']);
    expect(engines.node).toBe(JSON.parse(readFileSync(join(CORE, '../../package.json'), 'utf8')).engines.node);
    expect(readFileSync(join(CORE, 'LICENSE'), 'utf8')).toBe(readFileSync(join(CORE, '../../LICENSE'), 'utf8'));
    const map = JSON.parse(readFileSync(join(CORE, 'dist/world/world.js.map'), 'utf8'));
    expect(map.sourcesContent[0]).toContain('export class World');
  });
});
