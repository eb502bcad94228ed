import * as fc from 'fast-check';
import { placeOf } from '../../index.js';
import { input, join, poke, pool, stat, Trial } from '../../testing/rulesets.js';

const arena = { width: 400, height: 300, walls: [{ x: 200, y: 100, width: 40, height: 100 }], starts: [{ x: 100, y: 150 }] };
const parts = { attributes: [stat('finSpeed', 120, { max: 600 })], arena };
const at = (trial: Trial) => placeOf(trial.world, trial.world.actors.rowOf(trial.actor()));

describe('A start point', () => {
  const starts = [100, 300, 500].map((x) => ({ x, y: 100 }));
  const parts = (more: Record<string, unknown> = {}) => ({
    attributes: [pool('suit'), stat('finSpeed', 100)],
    actors: [{ id: 'diver', label: 'Diver', kind: 'player', life: 'suit', attributes: [{ attribute: 'suit' }], respawn: { after: '1s' } }],
    arena: { width: 600, height: 400, starts },
    ...more,
  });
  const seats = ['north', 'south', 'west', 'east'];
  const xs = (trial: Trial, of = seats) => of.map((seat) => placeOf(trial.world, trial.world.actors.rowOf(trial.actor(seat))).x);

  it('is the free one that is farthest from the others, in a team and without teams', () => {
    expect(
      xs(
        Trial.of(
          parts(),
          seats.slice(0, 3).map((seat) => join(seat)),
        ),
        seats.slice(0, 3),
      ),
    ).toEqual([100, 500, 300]);
    const teams = [{ id: 'petrel', label: 'Petrel' }];
    const own = { teams, arena: { width: 600, height: 400, starts: starts.map((start) => ({ ...start, team: 'petrel' })) } };
    const crew = Trial.of(
      parts(own),
      seats.slice(0, 3).map((seat) => join(seat, { team: 'petrel' })),
    );
    expect(xs(crew, seats.slice(0, 3))).toEqual([100, 500, 300]);
    // Where none is free they come as far from the others as they can.
    crew.step(join('east', { team: 'petrel' }));
    expect([100, 300, 500]).toContain(xs(crew)[3]);
  });

  it('is looked for anew by each who comes back', () => {
    const trial = Trial.of(parts(), [join('north'), join('south')]);
    trial.step(poke('south', { do: 'place', x: 120, y: 100 }));
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 100 });
    trial.run(1.1);
    expect(xs(trial, ['north'])).toEqual([500]);
    for (const seat of ['north', 'south']) trial.poke({ do: 'hurt', attribute: 'suit', amount: 100 }, seat);
    trial.run(1.1);
    expect(new Set(xs(trial, ['north', 'south'])).size).toBe(2);
  });
});

describe('Movement', () => {
  it('goes as fast as the speed stat says, no faster aslant', () => {
    const trial = Trial.of(parts);
    trial.step(input('north', { do: 'move', x: 0, y: -1 }));
    trial.run(0.45);
    expect(at(trial)).toEqual({ x: 100, y: 90 });
    const aslant = Trial.of(parts);
    aslant.step(input('north', { do: 'move', x: -1, y: -1 }));
    aslant.run(0.45);
    expect(Math.hypot(at(aslant).x - 100, at(aslant).y - 150)).toBeCloseTo(60, 1);
  });

  it('stops at walls and slides along them', () => {
    const trial = Trial.of(parts);
    trial.step(input('north', { do: 'move', x: 1, y: 0 }));
    trial.run(3);
    expect(at(trial)).toEqual({ x: 188, y: 150 });
    trial.step(input('north', { do: 'move', x: 1, y: 1 }));
    trial.run(3);
    expect(at(trial).x).toBeGreaterThan(240);
  });

  it('ends on the point it was sent to', () => {
    const trial = Trial.of(parts);
    trial.step(input('north', { do: 'moveTo', x: 131, y: 77 }));
    trial.run(2);
    expect(at(trial)).toEqual({ x: 131, y: 77 });
  });

  it('stops when told to', () => {
    const trial = Trial.of(parts);
    trial.step(input('north', { do: 'move', x: 0, y: 1 }));
    trial.step(input('north', { do: 'stop' }));
    const before = at(trial);
    trial.run(1);
    expect(at(trial)).toEqual(before);
  });

  it('never ends in a wall or outside, whatever is asked', () => {
    const ask = fc.record({
      x: fc.double({ min: -1, max: 1, noNaN: true }),
      y: fc.double({ min: -1, max: 1, noNaN: true }),
      ticks: fc.integer({ min: 1, max: 40 }),
    });
    fc.assert(
      fc.property(fc.array(ask, { maxLength: 12 }), fc.integer({ min: 10, max: 600 }), (asks, speed) => {
        const trial = Trial.of(parts);
        trial.poke({ do: 'set', attribute: 'finSpeed', value: speed });
        for (const { x, y, ticks } of asks) {
          trial.step(input('north', { do: 'move', x, y }));
          trial.run(ticks / 20);
          const place = at(trial);
          expect(place.x).toBeGreaterThanOrEqual(12);
          expect(place.x).toBeLessThanOrEqual(388);
          expect(place.y).toBeGreaterThanOrEqual(12);
          expect(place.y).toBeLessThanOrEqual(288);
          expect(place.x > 188 && place.x < 252 && place.y > 88 && place.y < 212)
            .withContext(JSON.stringify(place))
            .toBeFalse();
        }
      }),
      { numRuns: 50 },
    );
  });

  it('puts those who are placed in a wall beside it', () => {
    const trial = Trial.of(parts);
    trial.poke({ do: 'place', x: 205, y: 150 });
    expect(at(trial)).toEqual({ x: 188, y: 150 });
  });
});
