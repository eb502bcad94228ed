import brinewick from '../../../core/src/testing/recorded/brinewick.json' with { type: 'json' };
import { compileRuleset, readRuleset, renameEntry } from '@eager-ember/core';
import type { Operation } from 'fast-json-patch';
import { Impossible, NotNow, Unsound } from '../errors.js';
import { DraftingDesk, type StoredRuleset } from './desk.js';

describe('The drafting desk', () => {
  let desk: DraftingDesk;
  beforeAll(() => (desk = new DraftingDesk()));
  afterAll(() => desk.close());
  /** A stored ruleset, with how often its text was read. */
  const stored = (document: object = brinewick, id = 'demo') => {
    let count = 0;
    const ruleset: StoredRuleset = {
      id,
      revision: 1,
      read: () => {
        count++;
        return Promise.resolve({ revision: 1, text: JSON.stringify(document) });
      },
    };
    return { ruleset, reads: () => count };
  };
  const { ruleset } = stored();
  const at = (chapter: 'attributes' | 'tracks', id: string) => brinewick[chapter].findIndex((entry) => entry.id === id);

  it('finds what the core finds, in a thread of its own', async () => {
    const wrong = { ...brinewick, attributes: [{ ...brinewick.attributes[0], label: 7 }] };
    expect(await desk.check(wrong)).toEqual(readRuleset(wrong).problems);
    expect(await desk.check(brinewick)).toEqual([]);
    await expectAsync(desk.requireSound(wrong)).toBeRejectedWithError(Unsound);
    const empty = stored({ format: 'eager-ember/ruleset', version: 2, name: 'Empty', tickRate: 20 }, 'empty');
    expect(await desk.seats(empty.ruleset)).toContain('no actor of kind player');
  });

  it('previews what an edit would take from players, and has them follow it', async () => {
    const saved = { attributes: { scrip: 40 }, tracks: { 'standing.level': 3 } };
    const players = [
      { name: 'north', saved },
      // What can't be read is nobody's to follow.
      { name: 'spoiled', saved: { attributes: { scrip: 'a great deal' } } as never },
    ];
    const gone = await desk.edit(ruleset, [{ op: 'replace', path: '/tracks', value: [] }]);
    expect(() => gone.requireSound()).toThrow();
    gone.drop(false);
    const { patch } = renameEntry(compileRuleset(brinewick), 'tracks', 'standing', 'repute');
    const renamed = await desk.edit(ruleset, patch as unknown as Operation[]);
    renamed.requireSound();
    expect(await renamed.followed(players)).toEqual([
      { name: 'north', saved: { attributes: { scrip: 40 }, tracks: { 'repute.level': 3 } } },
    ]);
    renamed.drop(false);
    const fewer = await desk.edit(ruleset, [{ op: 'add', path: `/attributes/${at('attributes', 'scrip')}/max`, value: 10 }]);
    fewer.requireSound();
    expect([fewer.keeps, (await fewer.lossesOf(players)).map(({ player, had, has }) => [player, had, has])]).toEqual([
      false,
      [['north', 40, 10]],
    ]);
    fewer.drop(false);
    const same = await desk.edit(ruleset, [{ op: 'replace', path: '/name', value: 'Another' }]);
    expect([same.keeps, same.name, await same.followed(players)]).toEqual([true, 'Another', []]);
    same.drop(false);
    // What was dropped answers nothing any more.
    expect(await fewer.lossesOf(players)).toEqual([]);
  });

  it('is sent a document once, and after that what was edited of it', async () => {
    const { ruleset: own, reads } = stored(brinewick, 'own');
    expect([await desk.seats(own), reads()]).toEqual(['', 1]);
    const named = (name: string): Operation[] => [{ op: 'replace', path: '/name', value: name }];
    const left = await desk.edit(own, named('Left'));
    left.drop(false);
    const first = await desk.edit(own, named('First'));
    expect(JSON.parse(first.text)).toEqual({ ...brinewick, name: 'First' });
    first.drop(true);
    const second = await desk.edit({ ...own, revision: 2 }, [{ op: 'test', path: '/name', value: 'First' }, ...named('Second')]);
    expect([second.name, reads()]).toEqual(['Second', 1]);
    second.drop(false);
  });

  it('refuses a patch that does not fit', async () => {
    const edit = desk.edit(ruleset, [{ op: 'remove', path: '/nothing' }]);
    await expectAsync(edit).toBeRejectedWithError(Impossible, /^Operation 0: /);
  });

  it('does the jobs in order, refuses what is too much, and goes on with a new thread where one came to an end', async () => {
    const order: number[] = [];
    await Promise.all([1, 2, 3].map(async (n) => (await desk.check(brinewick), order.push(n))));
    expect(order).toEqual([1, 2, 3]);
    const many = Array.from({ length: 220 }, () => desk.check({}));
    const refused = (await Promise.allSettled(many)).filter(({ status }) => status === 'rejected');
    expect(refused.length).toBe(20);
    await expectAsync(desk.sheet(stored({}, 'broken').ruleset, {})).toBeRejectedWithError(/A stored ruleset has problems/);
    const waiting = expectAsync(desk.check(brinewick)).toBeRejectedWithError(NotNow);
    await desk.close();
    await waiting;
    expect(await desk.check(brinewick)).toEqual([]);
  });
});
