import { compileRuleset, VERSION, World } from '../index.js';
import { RowsOfKinds } from './rows-of-kinds.js';

describe('Rows of some kinds of actor', () => {
  const rules = compileRuleset({
    format: 'eager-ember/ruleset',
    version: VERSION,
    name: 'Kinds',
    actors: [
      { id: 'diver', label: 'Diver', kind: 'player' },
      { id: 'eel', label: 'Eel', kind: 'foe' },
    ],
    arena: { placed: [{ actor: 'eel', x: 100, y: 100 }] },
  });

  it('are those who are there, as they come and go', () => {
    const world = World.start(rules, 1);
    const divers = new RowsOfKinds([true, false]);
    const all = new RowsOfKinds([true, true]);
    expect([divers.in(world), all.in(world)]).toEqual([[], [0]]);
    world.step([{ kind: 'join', args: { seat: 'north' } }]);
    expect([divers.in(world), all.in(world)]).toEqual([[1], [0, 1]]);
    const before = divers.in(world);
    world.step();
    expect(divers.in(world)).toBe(before);
    world.step([{ kind: 'leave', args: { seat: 'north' } }]);
    expect([divers.in(world), all.in(world), before]).toEqual([[], [0], [1]]);
  });
});
