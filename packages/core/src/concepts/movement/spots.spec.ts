import * as fc from 'fast-check';
import { compileRuleset, World } from '../../index.js';
import { rulesetWith } from '../../testing/rulesets.js';
import { spawnActor } from '../actors/index.js';
import { actorsWithin, placeActor, Spots } from './index.js';

describe('Places that stay where they are', () => {
  const rules = compileRuleset(rulesetWith({ arena: { width: 900, height: 500 } }));
  const place = fc.record({ x: fc.integer({ min: 0, max: 900 }), y: fc.integer({ min: 0, max: 500 }) });
  const spot = fc.record({
    x: fc.integer({ min: -80, max: 980 }),
    y: fc.integer({ min: -80, max: 580 }),
    radius: fc.integer({ min: 1, max: 400 }),
  });

  it('are touched where somebody is found who looks around from there', () => {
    fc.assert(
      fc.property(fc.array(place, { maxLength: 12 }), fc.array(fc.option(spot, { nil: undefined }), { maxLength: 30 }), (bodies, all) => {
        const world = World.start(rules, 1);
        for (const { x, y } of bodies) placeActor(world, world.actors.rowOf(spawnActor(world, 0, -1, 'north')), x, y);
        const spots = new Spots();
        spots.lay(world, all);
        const found = all.map((one) => (one && actorsWithin(world, one.x, one.y, one.radius).length > 0 ? 1 : 0));
        expect([...spots.touched(world)]).toEqual(found);
        // And again, with nothing left of the time before.
        expect([...spots.touched(world)]).toEqual(found);
      }),
    );
  });
});
