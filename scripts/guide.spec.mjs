import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const ROOT = join(import.meta.dirname, '..');

describe('The guide to requirements first', () => {
  it('has a ruleset in its parts, whose checks fail and hold as it says', () => {
    const guide = readFileSync(join(ROOT, 'docs/guide/requirements-first.md'), 'utf8');
    const [wanted, rule] = [...guide.matchAll(/^```json\n([\s\S]*?)^```$/gm)].map(([, text]) => JSON.parse(text));
    const promised = [...guide.matchAll(/^```\n\$ npx ember test keep\.json\n([\s\S]*?)^```$/gm)].map(([, text]) => text);
    expect(promised.length).toBe(2);
    const folder = mkdtempSync(join(tmpdir(), 'ember-guide-'));
    try {
      const file = join(folder, 'keep.json');
      const printed = [wanted, { ...wanted, ...rule }].map((document) => {
        writeFileSync(file, JSON.stringify(document));
        const { stdout } = spawnSync(process.execPath, [join(ROOT, 'packages/cli/bin/ember.cjs'), 'test', file], { encoding: 'utf8' });
        return stdout.replace(/ \(\d+ ticks?, \d+ ms\)/, '');
      });
      expect(printed).toEqual(promised);
    } finally {
      rmSync(folder, { recursive: true });
    }
  });
});
