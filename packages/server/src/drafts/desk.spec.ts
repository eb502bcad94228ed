import brinewick from '../../../core/src/testing/recorded/brinewick.json' with { type: 'json' };
import { compileRuleset, readRuleset, renameEntry } from '@eager-ember/core';
import jsonPatch, { type Operation } from 'fast-json-patch';
import { NotNow, Unsound } from '../errors.js';
import { DraftingDesk } from './desk.js';

describe('The drafting desk', () => {
  let desk: DraftingDesk;
  beforeAll(() => (desk = new DraftingDesk()));
  afterAll(() => desk.close());
  const edited = (edit: (document: typeof brinewick) => void) => {
    const document = structuredClone(brinewick);
    edit(document);
    return document;
  };

  it('finds what the core finds, in a thread of its own', async () => {
    const wrong = edited((document) => (document.attributes[0].label = 7 as never));
    expect(await desk.check(wrong)).toEqual(readRuleset(wrong).problems);
    expect(await desk.check(brinewick)).toEqual([]);
    await expectAsync(desk.requireSound(wrong)).toBeRejectedWithError(Unsound);
    expect(await desk.seats({ format: 'eager-ember/ruleset', version: 2, name: 'Empty', tickRate: 20 })).toContain(
      'no actor of kind player',
    );
  });

  it('previews what an edit would take from players, and has them follow it', async () => {
    const saved = { attributes: { scrip: 40 }, tracks: { 'standing.level': 3 } };
    const players = [
      { name: 'north', saved },
      // What can't be read is nobody's to follow.
      { name: 'spoiled', saved: { attributes: { scrip: 'a great deal' } } as never },
    ];
    const gone = await desk.compare(
      brinewick,
      edited((document) => document.tracks.splice(0)),
    );
    expect(() => gone.requireSound()).toThrow();
    gone.drop();
    const { patch } = renameEntry(compileRuleset(brinewick), 'tracks', 'standing', 'repute');
    const renamed = await desk.compare(
      brinewick,
      jsonPatch.applyPatch(structuredClone(brinewick), patch as unknown as Operation[]).newDocument,
    );
    renamed.requireSound();
    expect(await renamed.followed(players)).toEqual([
      { name: 'north', saved: { attributes: { scrip: 40 }, tracks: { 'repute.level': 3 } } },
    ]);
    renamed.drop();
    const fewer = await desk.compare(
      brinewick,
      edited((document) =>
        Object.assign(
          document.attributes.find(({ id }) => id === 'scrip')!,
          { max: 10 },
        ),
      ),
    );
    fewer.requireSound();
    expect([fewer.keeps, (await fewer.lossesOf(players)).map(({ player, had, has }) => [player, had, has])]).toEqual([
      false,
      [['north', 40, 10]],
    ]);
    fewer.drop();
    const same = await desk.compare(
      brinewick,
      edited((document) => (document.name = 'Another')),
    );
    expect([same.keeps, await same.followed(players)]).toEqual([true, []]);
    same.drop();
    // What was dropped answers nothing any more.
    expect(await fewer.lossesOf(players)).toEqual([]);
  });

  it('does the jobs in order, refuses what is too much, and goes on with a new thread where one came to an end', async () => {
    const order: number[] = [];
    await Promise.all([1, 2, 3].map(async (n) => (await desk.check(brinewick), order.push(n))));
    expect(order).toEqual([1, 2, 3]);
    const many = Array.from({ length: 220 }, () => desk.check({}));
    const refused = (await Promise.allSettled(many)).filter(({ status }) => status === 'rejected');
    expect(refused.length).toBe(20);
    await expectAsync(desk.ask('sheet', { document: {}, saved: {} })).toBeRejectedWithError(/A stored ruleset has problems/);
    const waiting = expectAsync(desk.check(brinewick)).toBeRejectedWithError(NotNow);
    await desk.close();
    await waiting;
    expect(await desk.check(brinewick)).toEqual([]);
  });
});
