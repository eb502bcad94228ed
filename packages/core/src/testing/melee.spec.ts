import { compileRuleset, World } from '../index.js';
import { MELEE, meleeCommands, meleeRuleset, meleeSeats } from './melee.js';
import { projectilesTable } from '../concepts/deliveries/tables.js';

describe('A fight of 300 foes and 8 divers', () => {
  it('ends after 60 s with the same hash in every engine', () => {
    const world = World.start(compileRuleset(meleeRuleset(MELEE)), 7);
    world.step(meleeSeats(MELEE));
    let falls = 0;
    let most = 0;
    for (let tick = 1; tick < 1200; tick++) {
      falls += world.step(meleeCommands(MELEE, tick)).filter((event) => event.name === 'actorDefeated').length;
      most = Math.max(most, projectilesTable.in(world).count);
    }
    expect(falls).toBeGreaterThan(100);
    expect(most).toBeGreaterThan(40);
    expect(world.hash()).toBe('0aa75070caef9840');
  });
});
