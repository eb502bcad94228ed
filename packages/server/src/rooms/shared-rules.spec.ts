import { readFileSync } from 'node:fs';
import type { Rules } from '@eager-ember/core';
import { Unsound } from '../errors.js';
import { LoopTurns } from './loop-turns.js';
import { SharedRules, type Stored } from './shared-rules.js';

const text = readFileSync(new URL('../../../../examples/brinewick.json', import.meta.url), 'utf8');
const demo = () => JSON.parse(text) as Record<string, object[]>;

describe('The rules that rooms share', () => {
  let shared: SharedRules;
  let reads = 0;
  beforeEach(() => {
    shared = new SharedRules(new LoopTurns());
    reads = 0;
  });
  /** A stored ruleset, as whoever asks now finds it. */
  const stored = (revision: number, document: object = demo(), now = revision): Stored => ({
    id: 'one',
    revision,
    read: () => {
      reads++;
      return Promise.resolve({ revision: now, text: JSON.stringify(document) });
    },
  });
  const naming = (name: string) => [{ op: 'replace' as const, path: '/name', value: name }];
  const entries = ({ chapters }: Rules) => chapters.get('effects')!.entries;

  it('are one for all who ask for a revision, also while it is read', async () => {
    const all = await Promise.all([shared.of(stored(1)), shared.of(stored(1)), shared.of(stored(1))]);
    expect(new Set([...all, await shared.of(stored(1))].map(({ rules }) => rules)).size).toBe(1);
    expect(reads).toBe(1);
  });

  it('follow a patch without the document being read again, and share with those before what was not edited', async () => {
    const one = await shared.of(stored(1));
    const other = await shared.edited(stored(2), naming('Another'));
    expect([one.rules.document.name, other.rules.document.name, other.revision, reads]).toEqual(['Brinewick Salvage', 'Another', 2, 1]);
    expect(entries(other.rules)).toBe(entries(one.rules));
    expect(other.rules.tables.every((table, i) => table === one.rules.tables[i])).toBeTrue();
    expect((await shared.of(stored(2))).rules).toBe(other.rules);
  });

  it('are read where an edit came between, and are of the revision that was found', async () => {
    await shared.of(stored(1));
    const later = await shared.edited(stored(3, { ...demo(), name: 'Later' }, 4), naming('Third'));
    expect([later.rules.document.name, later.revision, reads]).toEqual(['Later', 4, 2]);
    const next = await shared.edited(stored(5), naming('Fifth'));
    expect([next.rules.document.name, next.revision, reads]).toEqual(['Fifth', 5, 2]);
    const earlier = await shared.earlier('one', 2, { ...demo(), name: 'Earlier' });
    expect([earlier.document.name, entries(earlier) === entries(next.rules)]).toEqual(['Earlier', true]);
  });

  it('are read in turn, whoever else asks meanwhile', async () => {
    const first = shared.of(stored(1));
    const rest = [2, 3, 4].map((revision) => shared.edited(stored(revision), naming(`${revision}`)));
    const all = await Promise.all([first, ...rest]);
    expect(all.map(({ rules }) => rules.document.name)).toEqual(['Brinewick Salvage', '2', '3', '4']);
    expect(reads).toBe(1);
  });

  it('are refused where the document is not sound, and read anew when it is asked for again', async () => {
    await expectAsync(shared.of(stored(1, { ...demo(), attributes: [{ id: 'Air' }] }))).toBeRejectedWithError(Unsound);
    await expectAsync(shared.of(stored(1))).toBeResolved();
  });
});
