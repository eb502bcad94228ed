import * as fc from 'fast-check';
import brinewick from '../testing/recorded/brinewick.json' with { type: 'json' };
import { compileRuleset, readChanges, readSnapshot, type Snapshot, storeChanges, storeSnapshot, World } from '../index.js';
import { input, join, poke } from '../testing/rulesets.js';

const DEMO = compileRuleset(brinewick);
const asks = [
  input('north', { do: 'move', x: 1, y: 0.5 }),
  input('north', { do: 'stop' }),
  input('south', { do: 'use', ability: 'sonarPing' }),
  poke('south', { do: 'give', attribute: 'scrip', amount: 7 }),
  poke('north', { do: 'apply', effect: 'slipstream' }),
];
const deeds = fc.array(fc.record({ ask: fc.constantFrom(...asks), wait: fc.nat(20) }), { maxLength: 12 });

function play(world: World, all: readonly { readonly ask: (typeof asks)[number]; readonly wait: number }[]): World {
  for (const { ask, wait } of all) {
    world.step([ask]);
    for (let i = 0; i < wait; i++) world.step();
  }
  return world;
}
/** A world in which something happens already, with so much room that no table has to grow. */
const begun = () => {
  const world = World.start(DEMO, 5);
  for (const table of world.tables.values()) if (table.spec.extends === undefined) table.reserve(128);
  world.step([join('north'), join('south')]);
  return play(
    world,
    asks.map((ask) => ({ ask, wait: 5 })),
  );
};
const asStored = (snapshot: Snapshot) => readSnapshot(storeSnapshot(snapshot));

describe('What has changed in a world', () => {
  it('makes the later one of the earlier one', () => {
    fc.assert(
      fc.property(deeds, deeds, (before, after) => {
        const world = play(begun(), before);
        const earlier = world.snapshot();
        const later = play(world, after).snapshot();
        const read = readChanges(asStored(earlier), storeChanges(earlier, later)!);
        expect([read.header, read.texts]).toEqual([later.header, later.texts]);
        expect(read.bytes.every((byte, i) => byte === later.bytes[i])).toBeTrue();
        expect(World.restore(DEMO, read).hash()).toBe(world.hash());
      }),
      { numRuns: 8 },
    );
  });

  it('is not told where a table has grown, and lies elsewhere', () => {
    const world = begun();
    const earlier = world.snapshot();
    world.actors.reserve(1000);
    expect(storeChanges(earlier, world.snapshot())).toBeUndefined();
  });

  it('is little where little has', () => {
    const world = begun();
    const [earlier, later] = [world.snapshot(), play(world, [{ ask: asks[3], wait: 10 }]).snapshot()];
    expect(storeChanges(earlier, later)!.length).toBeLessThan(storeSnapshot(later).length / 10);
  });

  it('is not told where so much has that the later one may as well be kept, nor of another world', () => {
    const { bytes, ...rest } = begun().snapshot();
    expect(storeChanges({ bytes, ...rest }, { ...rest, bytes: bytes.map((byte) => byte + 1) })).toBeUndefined();
    expect(storeChanges(begun().snapshot(), begun().snapshot())).toBeUndefined();
    expect(storeChanges({ bytes, ...rest }, { bytes, ...rest, texts: ['another'] })).toBeUndefined();
  });

  it('is refused where it belongs to another moment, or speaks of what is not there', () => {
    const world = begun();
    const earlier = world.snapshot();
    const later = play(world, [{ ask: asks[3], wait: 10 }]).snapshot();
    const changes = storeChanges(earlier, later)!;
    expect(() => readChanges(later, changes)).toThrowError(RangeError, /^Changes since tick \d+ are expected; these are since \d+$/);
    const small = { ...earlier, bytes: earlier.bytes.slice(0, 64) };
    expect(() => readChanges(small, changes)).toThrowError(RangeError, 'Changes to cells that the world does not have');
    // What comes first in the list is the version.
    const newer = changes.map((byte, i) => (i === 1 ? 2 : byte));
    expect(() => readChanges(earlier, newer)).toThrowError(RangeError, 'Changes of version 1 are expected; these are of 2');
  });
});
