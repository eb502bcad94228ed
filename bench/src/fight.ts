import { actorsWithin, bodiesTable, compileRuleset, placeOf, World } from '@eager-ember/core';
import { MELEE, meleeCommands, meleeRuleset, meleeSeats } from '../../packages/core/src/testing/melee.js';
import { compare, median, rounded, type Row } from './measure.js';

const TICKS = 600;
/** A tick of 20 a second has this long. */
const TICK_US = 50_000;

/** The ticks of half a minute, in order, in microseconds. */
function ticksOf(size: typeof MELEE): number[] {
  const world = World.start(compileRuleset(meleeRuleset(size)), 7);
  world.step(meleeSeats(size));
  return Array.from({ length: TICKS }, (_, i) => {
    const commands = meleeCommands(size, i + 1);
    const began = performance.now();
    world.step(commands);
    return (performance.now() - began) * 1000;
  });
}

/** A room of 300 foes that chase and bite and 8 divers who throw sparks and charges. */
function roomTick(): Row {
  ticksOf(MELEE);
  const times = ticksOf(MELEE);
  const alone = median(ticksOf({ foes: 1, divers: MELEE.divers }));
  const [one, worst] = [median(times), [...times].sort((a, b) => a - b)[Math.floor(times.length * 0.99)]];
  return {
    what: 'a room of 300 foes and 8 divers with projectiles: one tick',
    value: rounded(one),
    reference: rounded(alone),
    unit: 'µs',
    referenceIs: 'the same divers with one foe',
    ratio: `${((one / TICK_US) * 100).toFixed(1)} % of a tick of 20 a second; 99 of 100 within ${((worst / TICK_US) * 100).toFixed(1)} %`,
    reach: 'within 25 %',
  };
}

/** Who is within 60 of each body in turn, after all of them moved. */
function queries(): Row {
  const world = World.start(compileRuleset(meleeRuleset(MELEE)), 7);
  world.step(meleeSeats(MELEE));
  const { actors } = world;
  const places = Array.from({ length: actors.high }, (_, row) => placeOf(world, row));
  const reach = 60;
  let found = 0;
  const indexed = () => {
    // As after every tick: bodies have moved, and the index is worked out anew.
    world.step();
    for (const { x, y } of places) found += actorsWithin(world, x, y, reach).length;
  };
  const still = () => void world.step();
  const { x: xs, y: ys } = bodiesTable.in(world).cells;
  const allPairs = () => {
    world.step();
    for (const { x, y } of places) {
      const near: number[] = [];
      for (let row = 0; row < actors.high; row++) {
        if (actors.live[row] === 0) continue;
        const dx = xs[row] - x;
        const dy = ys[row] - y;
        const least = reach + 12;
        if (dx * dx + dy * dy <= least * least) near.push(row);
      }
      found += near.length;
    }
  };
  const ours = compare(indexed, still, 40, 4);
  const theirs = compare(allPairs, still, 40, 4);
  const [one, other] = [Math.max(0.1, ours.one - ours.other), Math.max(0.1, theirs.one - theirs.other)];
  if (found === 0) throw new Error('Nobody is near anybody');
  return {
    what: `who is within ${reach} of each of 308 bodies, the index built anew`,
    value: rounded(one),
    reference: rounded(other),
    unit: 'µs',
    referenceIs: 'asking every pair, over bare columns',
    ratio: `${(other / one).toFixed(1)}x faster`,
    reach: 'faster than all pairs',
  };
}

export const fight = (): readonly Row[] => [roomTick(), queries()];
