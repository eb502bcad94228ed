import { compileRuleset } from '../../index.js';
import { pool, rulesetWith, Trial } from '../../testing/rulesets.js';
import { attributes } from '../attributes/index.js';
import { pickupsTable } from '../pickups/tables.js';
import { bodiesTable } from '../movement/tables.js';

const LAMPREY = { id: 'lamprey', label: 'Lamprey', kind: 'foe', life: 'suit', attributes: [{ attribute: 'suit' }] };
const parts = (spawner: Record<string, unknown>, placed: Record<string, unknown> = {}) => ({
  attributes: [pool('suit')],
  actors: [{ id: 'diver', label: 'Diver', kind: 'player', attributes: [{ attribute: 'suit' }] }, LAMPREY],
  pickups: [{ id: 'kelp', label: 'Kelp', lasts: '4s', who: 'suit > 1000' }],
  spawners: [{ id: 'nest', label: 'Nest', ...spawner }],
  arena: { placed: [{ spawner: 'nest', x: 700, y: 300, ...placed }] },
});
const foes = (trial: Trial) => trial.world.actors.count - 1;
const fellAll = (trial: Trial) => {
  const { actors } = trial.world;
  for (const row of actors.rows())
    if (actors.cells.type[row] === 1) {
      attributes.in(trial.world).cells[0].value.data[row] = 0;
      return;
    }
};

describe('A spawner', () => {
  it('makes a wave when none of the last is left, after its pause', () => {
    const trial = Trial.of(parts({ what: [{ weight: 1, actor: 'lamprey' }], when: { is: 'wave', pause: '2s' }, count: 3 }));
    expect(foes(trial)).toBe(0);
    trial.run(2);
    expect(foes(trial)).toBe(3);
    fellAll(trial);
    fellAll(trial);
    trial.run(5);
    expect(foes(trial)).toBe(2);
    fellAll(trial);
    trial.step();
    fellAll(trial);
    trial.run(1.9);
    expect(foes(trial)).toBe(0);
    trial.run(0.3);
    expect(foes(trial)).toBe(3);
    expect(trial.named('waveBegan').map(({ data }) => data['made'])).toEqual([3, 3]);
  });

  it('makes one of its kinds every so often, by weight, and sometimes nothing', () => {
    const what = [{ weight: 3, actor: 'lamprey' }, { weight: 2, pickup: 'kelp' }, { weight: 5 }];
    const trial = Trial.of(parts({ what, when: { is: 'every', time: '1s' } }));
    trial.run(200);
    const made = { foes: foes(trial), kelps: trial.named('pickupAppeared').length, times: trial.named('waveBegan').length };
    expect(made.times).toBe(200);
    expect(Math.abs(made.foes - 60)).toBeLessThan(25);
    expect(Math.abs(made.kelps - 40)).toBeLessThan(20);
    expect(trial.named('pickupFaded').length).toBeGreaterThan(made.kelps - 5);
    const again = Trial.of(parts({ what, when: { is: 'every', time: '1s' } }));
    again.run(200);
    expect(again.world.hash()).toBe(trial.world.hash());
  });

  it('has at most so many alive, counts what lies too, and goes on when there is room', () => {
    const trial = Trial.of(parts({ what: [{ weight: 1, actor: 'lamprey' }], when: { is: 'every', time: '1s' }, most: 2, count: 5 }));
    trial.run(5);
    expect(foes(trial)).toBe(2);
    fellAll(trial);
    trial.run(1.1);
    expect(foes(trial)).toBe(2);
    const kelps = Trial.of(parts({ what: [{ weight: 1, pickup: 'kelp' }], when: { is: 'every', time: '1s' }, most: 3 }));
    kelps.run(20);
    expect(pickupsTable.in(kelps.world).count).toBe(3);
  });

  it('makes something when an event happens', () => {
    const event = { on: 'pickupFaded', pickup: 'kelp' };
    const trial = Trial.of(parts({ what: [{ weight: 1, actor: 'lamprey' }], when: { is: 'on', event } }));
    trial.run(5);
    expect(foes(trial)).toBe(0);
    trial.poke({ do: 'spawn', pickup: 'kelp', x: 900, y: 500 });
    trial.run(4);
    expect(foes(trial)).toBe(1);
  });

  it('puts what it makes at its points in turn, within its spread', () => {
    const points = [
      { x: 200, y: 200 },
      { x: 600, y: 400 },
    ];
    const trial = Trial.of(parts({ what: [{ weight: 1, actor: 'lamprey' }], when: { is: 'every', time: '1s' }, spread: 10 }, { points }));
    trial.run(6);
    const { x, y } = { x: bodiesTable.in(trial.world).cells.x, y: bodiesTable.in(trial.world).cells.y };
    for (let n = 0; n < 6; n++) {
      expect(Math.abs(x[n + 1] - points[n % 2].x)).toBeLessThanOrEqual(10);
      expect(Math.abs(y[n + 1] - points[n % 2].y)).toBeLessThanOrEqual(10);
    }
  });

  it('goes on over a restart and an edit, with those that it made', () => {
    const source = parts({ what: [{ weight: 1, actor: 'lamprey' }], when: { is: 'wave' }, count: 2 });
    const trial = Trial.of(source);
    trial.run(1);
    trial.restore();
    const placed = [{ pickup: 'kelp', x: 10, y: 10 }, ...source.arena.placed];
    trial.world = trial.world.adopt(compileRuleset(rulesetWith({ ...source, arena: { placed } })));
    trial.run(1);
    expect(foes(trial)).toBe(2);
    fellAll(trial);
    trial.step();
    fellAll(trial);
    trial.run(1);
    expect(foes(trial)).toBe(2);
    trial.world = trial.world.adopt(compileRuleset(rulesetWith({ ...source, arena: { placed: [] } })));
    trial.run(1);
    expect(foes(trial)).toBe(2);
  });

  it('rests for as long as nobody is near', () => {
    const trial = Trial.of(parts({ what: [{ weight: 1, actor: 'lamprey' }], when: { is: 'wave' }, count: 2, near: 100 }));
    trial.run(5);
    expect(foes(trial)).toBe(0);
    trial.poke({ do: 'place', x: 620, y: 300 });
    trial.run(0.2);
    expect(foes(trial)).toBe(2);
  });

  it('sends those who follow points along its own', () => {
    const behaviour = { do: 'follow', points: [{ x: 50, y: 500 }] };
    const guard = { id: 'lamprey', label: 'Lamprey', kind: 'foe', speed: 'pace', attributes: [{ attribute: 'pace' }], behaviour };
    const source = parts({ what: [{ weight: 1, actor: 'lamprey' }], when: { is: 'wave' } }, { along: [{ x: 900, y: 300 }] });
    const trial = Trial.of({
      ...source,
      attributes: [...source.attributes, { id: 'pace', label: 'Pace', kind: 'stat', start: 200 }],
      actors: [source.actors[0], guard],
    });
    trial.run(3);
    expect(bodiesTable.in(trial.world).cells.x[1]).toBeGreaterThan(870);
  });
});
