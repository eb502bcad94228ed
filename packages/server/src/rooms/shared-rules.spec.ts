import { readFileSync } from 'node:fs';
import type { Rules } from '@eager-ember/core';
import { Unsound } from '../errors.js';
import { LoopTurns } from './loop-turns.js';
import { SharedRules } from './shared-rules.js';

const demo = () =>
  JSON.parse(readFileSync(new URL('../../../../examples/brinewick.json', import.meta.url), 'utf8')) as Record<string, object[]>;
const edited = (name: string) => ({ ...demo(), name });

describe('The rules that rooms share', () => {
  let shared: SharedRules;
  beforeEach(() => (shared = new SharedRules(new LoopTurns())));

  it('are one for all who ask for a revision, also while it is read', async () => {
    const all = await Promise.all([shared.of('one', 1, demo()), shared.of('one', 1, demo()), shared.of('one', 1, demo())]);
    expect(new Set([...all, await shared.of('one', 1, demo())]).size).toBe(1);
  });

  it('are others for another revision, and share with the one before what was not edited', async () => {
    const [one, other] = [await shared.of('one', 1, demo()), await shared.of('one', 2, edited('Another'))];
    expect([one.document.name, other.document.name]).toEqual(['Brinewick Salvage', 'Another']);
    const entries = ({ chapters }: Rules) => chapters.get('effects')!.entries;
    expect(entries(other)).toBe(entries(one));
    expect(other.tables.every((table, i) => table === one.tables[i])).toBeTrue();
  });

  it('are read in turn, whoever else asks meanwhile', async () => {
    const names = await Promise.all(
      [1, 2, 3, 4].map(async (revision) => (await shared.of('one', revision, edited(`${revision}`))).document.name),
    );
    expect(names).toEqual(['1', '2', '3', '4']);
  });

  it('are refused where the document is not sound, and read anew when it is asked for again', async () => {
    const broken = { ...demo(), attributes: [{ id: 'Air' }] };
    await expectAsync(shared.of('one', 1, broken)).toBeRejectedWithError(Unsound);
    await expectAsync(shared.of('one', 1, demo())).toBeResolved();
  });
});
