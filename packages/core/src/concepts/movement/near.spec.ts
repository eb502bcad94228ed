import * as fc from 'fast-check';
import { actorsWithin, placeOf } from '../../index.js';
import { bodyRadius } from './index.js';
import { FIGHT } from '../../testing/fights.js';
import { join, poke, Trial } from '../../testing/rulesets.js';

const actors = [
  { id: 'diver', label: 'Diver', kind: 'player' },
  { id: 'crate', label: 'Crate', kind: 'prop', radius: 40 },
  { id: 'pebble', label: 'Pebble', kind: 'prop', radius: 1 },
];

describe('Who is near', () => {
  it('is who would be found by asking everybody, however they came there', () => {
    const spot = fc.record({
      x: fc.integer({ min: 0, max: 800 }),
      y: fc.integer({ min: 0, max: 400 }),
      actor: fc.constantFrom('crate', 'pebble'),
    });
    const query = fc.record({
      x: fc.integer({ min: -50, max: 850 }),
      y: fc.integer({ min: -50, max: 450 }),
      r: fc.integer({ min: 0, max: 500 }),
    });
    fc.assert(
      fc.property(
        fc.array(spot, { maxLength: 30 }),
        fc.array(query, { minLength: 1, maxLength: 8 }),
        fc.nat(30),
        (spots, queries, moved) => {
          const trial = Trial.of({ ...FIGHT, actors }, [join('north', { team: 'petrel' })]);
          for (const { x, y, actor } of spots) trial.step(poke('north', { do: 'summon', actor, x, y }));
          for (const [i, { x, y, r }] of queries.entries()) {
            // In between somebody is put elsewhere: what was worked out before must not hold any more.
            if (i === moved % 3) trial.step(poke('north', { do: 'place', x: (x * 7) % 800, y: (y * 3 + 200) % 400 }));
            const all: number[] = [];
            for (let row = 0; row < trial.world.actors.high; row++) {
              const at = placeOf(trial.world, row);
              const reach = r + bodyRadius(trial.world, row);
              if ((at.x - x) ** 2 + (at.y - y) ** 2 <= reach ** 2) all.push(row);
            }
            expect([...actorsWithin(trial.world, x, y, r)].sort((a, b) => a - b)).toEqual(all);
          }
        },
      ),
      { numRuns: 60 },
    );
  });
});
