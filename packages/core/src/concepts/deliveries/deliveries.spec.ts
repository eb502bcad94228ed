import * as fc from 'fast-check';
import { crossing, isInSight } from '../../index.js';
import { ask, at, FIGHT, fight, HITS } from '../../testing/fights.js';
import { join, poke, Trial } from '../../testing/rulesets.js';
import { areasTable, projectilesTable, strikesTable } from './tables.js';

const shot = (more: Record<string, unknown> = {}) => ({
  target: { at: 'direction' },
  deliver: { by: 'projectile', speed: 400, radius: 4, lifetime: '1s', ...more },
  onHit: HITS,
});
const hits = (trial: Trial) => trial.named('abilityHit').map((event) => event.who);
const flying = (trial: Trial) => projectilesTable.in(trial.world).count;

/** `north` and a row of others of the other crew, to its right. */
const row = (ability: Record<string, unknown>, places: readonly number[], walls: unknown[] = []) => {
  const starts = [{ x: 100, y: 100, team: 'petrel' }, ...places.map((x) => ({ x, y: 100, team: 'gannet' }))];
  const trial = Trial.of({ ...FIGHT, arena: { ...FIGHT.arena, starts, walls }, abilities: [{ id: 'torch', label: 'Torch', ...ability }] }, [
    join('north', { team: 'petrel' }),
    ...places.map((_, i) => join(`s${i}`, { team: 'gannet' })),
    ...places.map((x, i) => poke(`s${i}`, { do: 'place', x, y: 100 })),
  ]);
  trial.events = [];
  return trial;
};

describe('A projectile', () => {
  it('flies as fast as it says, hits the first that it meets, and is gone', () => {
    const trial = row(shot(), [300, 400]);
    ask(trial, { x: 700, y: 100 });
    expect(flying(trial)).toBe(1);
    trial.run(0.4);
    expect(hits(trial)).toEqual([]);
    trial.run(0.1);
    expect(hits(trial)).toEqual(['s0']);
    expect(trial.value('suit', 's0')).toBe(90);
    expect(flying(trial)).toBe(0);
  });

  it('jumps over nobody, however fast it is', () => {
    for (const speed of [300, 3000, 30000]) {
      const trial = row(shot({ speed, radius: 1 }), [350]);
      ask(trial, { x: 700, y: 100 });
      trial.run(1);
      expect(hits(trial)).toEqual(['s0']);
    }
  });

  it('goes through as many as it pierces, each once, in order', () => {
    const trial = row(shot({ pierce: 2 }), [340, 200, 270, 400]);
    ask(trial, { x: 700, y: 100 });
    trial.run(1);
    expect(hits(trial)).toEqual(['s1', 's2', 's0']);
    expect(trial.named('abilityMissed')).toEqual([]);
    expect(strikesTable.in(trial.world).count).toBe(0);
  });

  it('flies past those that it is not for', () => {
    const trial = fight({ ...shot({ who: 'crew' }), onMiss: [{ do: 'hurt', attribute: 'stamina', amount: 1 }] });
    ask(trial, { x: 300, y: 100 });
    trial.run(1.2);
    expect(hits(trial)).toEqual([]);
    expect(trial.named('abilityMissed').length).toBe(1);
    expect(trial.value('stamina')).toBe(29);
    const friendly = fight(shot({ who: 'anyone' }));
    ask(friendly, { x: 300, y: 100 });
    friendly.run(1);
    expect(hits(friendly)).toEqual(['south']);
  });

  it('ends in a wall, and before whoever stands behind it', () => {
    const trial = row(shot(), [300], [{ x: 200, y: 50, width: 2, height: 100 }]);
    ask(trial, { x: 700, y: 100 });
    trial.run(1);
    expect(hits(trial)).toEqual([]);
    expect(flying(trial)).toBe(0);
  });

  it('ends with its lifetime and at the edge of the arena', () => {
    const short = row(shot({ lifetime: '0.3s' }), [300]);
    ask(short, { x: 700, y: 100 });
    short.run(1);
    expect(hits(short)).toEqual([]);
    const out = row(shot({ lifetime: '60s' }), []);
    ask(out, { x: 0, y: 100 });
    out.run(0.5);
    expect(flying(out)).toBe(0);
  });

  it('turns towards whom it was aimed at, where it homes', () => {
    const homing = { ...shot({ homing: true, lifetime: '2s' }), target: { at: 'actor', range: 400 } };
    const trial = row(homing, [300]);
    ask(trial);
    trial.step(poke('s0', { do: 'place', x: 200, y: 300 }));
    trial.run(2);
    expect(hits(trial)).toEqual(['s0']);
  });

  it('of several are spread evenly over a cone', () => {
    const trial = row({ ...shot({ count: 5 }), target: { at: 'cone', range: 200, angle: 40 } }, []);
    ask(trial, { x: 700, y: 100 });
    const table = projectilesTable.in(trial.world);
    const angles = [0, 1, 2, 3, 4].map((i) => (Math.atan2(table.cells.wayY[i], table.cells.wayX[i]) * 180) / Math.PI);
    [-20, -10, 0, 10, 20].forEach((angle, i) => expect(angles[i]).toBeCloseTo(angle, 9));
  });

  it('of several all round are equal parts of a circle, one of them in the direction itself', () => {
    for (const count of [2, 3, 8]) {
      const trial = row(shot({ count, spread: 360 }), []);
      ask(trial, { x: 700, y: 100 });
      const table = projectilesTable.in(trial.world);
      const turn = (i: number) => (Math.atan2(table.cells.wayY[i], table.cells.wayX[i]) * 180) / Math.PI;
      for (let i = 0; i < count; i++) expect((turn(i) + 360.000001) % 360).toBeCloseTo((i * 360) / count, 5);
    }
  });

  it('goes on when who sent it has left, and hurts nobody that it can’t be told is a foe', () => {
    const trial = row(shot(), [300]);
    ask(trial, { x: 700, y: 100 });
    trial.step({ kind: 'leave', args: { seat: 'north' } });
    trial.run(1);
    expect(flying(trial)).toBe(0);
    expect(trial.value('suit', 's0')).toBe(100);
  });

  it('is caused by the use that sent it', () => {
    const trial = row(shot(), [300]);
    ask(trial, { x: 700, y: 100 });
    trial.run(1);
    expect(trial.named('abilityHit')[0].cause).toBe(trial.named('abilityUsed')[0].serial);
    expect(trial.named('attributeChanged')[0].cause).toBe(trial.named('abilityHit')[0].serial);
  });
});

describe('An area', () => {
  const area = (more: Record<string, unknown> = {}) => ({
    target: { at: 'point', range: 300 },
    deliver: { by: 'area', radius: 50, delay: '1.5s', ...more },
    onHit: HITS,
  });

  it('lands after its delay where it was aimed, whoever is there by then', () => {
    const trial = row(area(), [300, 500]);
    ask(trial, { x: 300, y: 100 });
    trial.run(1.45);
    expect(hits(trial)).toEqual([]);
    trial.step(poke('s0', { do: 'place', x: 600, y: 300 }), poke('s1', { do: 'place', x: 320, y: 100 }));
    expect(hits(trial)).toEqual(['s1']);
    expect(areasTable.in(trial.world).count).toBe(0);
  });

  it('that catches nobody has missed', () => {
    const trial = row(area(), [500]);
    ask(trial, { x: 300, y: 100 });
    trial.run(2);
    expect(trial.named('abilityMissed').length).toBe(1);
    expect(trial.named('areaLanded')[0].data['caught']).toBe(0);
  });

  it('that stays does it again and again to whom it holds', () => {
    const trial = row(area({ delay: '0.5s', lasts: '2s', every: '0.5s' }), [300]);
    ask(trial, { x: 300, y: 100 });
    trial.run(1.2);
    expect(hits(trial).length).toBe(2);
    trial.run(3);
    expect(hits(trial).length).toBe(5);
    expect(areasTable.in(trial.world).count).toBe(0);
  });

  it('that stays has missed when it is over and caught nobody in all that time', () => {
    for (const [caught, missed] of [
      [false, 1],
      [true, 0],
    ] as const) {
      const trial = row(area({ delay: '0.5s', lasts: '2s', every: '0.5s' }), [500]);
      ask(trial, { x: 300, y: 100 });
      trial.run(1.2);
      expect(trial.named('abilityMissed').length).toBe(0);
      if (caught) trial.step(poke('s0', { do: 'place', x: 300, y: 100 }));
      trial.run(2);
      expect(trial.named('abilityMissed').length).toBe(missed);
    }
  });

  it('around oneself lies where its user was', () => {
    const trial = row({ target: { at: 'self' }, deliver: { by: 'area', radius: 120, delay: '0.5s' }, onHit: HITS }, [200]);
    ask(trial);
    trial.step(poke('north', { do: 'place', x: 700, y: 300 }));
    trial.run(1);
    expect(hits(trial)).toEqual(['s0']);
  });
});

describe('Sight', () => {
  const wall = { x: 100, y: 100, width: 50, height: 20 };
  it('is what no wall stands in', () => {
    const ground = { walls: [wall] };
    expect(isInSight(ground, 0, 110, 300, 110)).toBeFalse();
    expect(isInSight(ground, 0, 90, 300, 90)).toBeTrue();
    expect(isInSight(ground, 0, 100, 300, 100))
      .withContext('along its edge')
      .toBeTrue();
    expect(isInSight(ground, 120, 50, 120, 300)).toBeFalse();
    expect(isInSight(ground, 120, 50, 120, 90)).toBeTrue();
  });

  const point = fc.record({ x: fc.integer({ min: 0, max: 300 }), y: fc.integer({ min: 0, max: 300 }) });
  type Point = typeof point extends fc.Arbitrary<infer T> ? T : never;
  const holds = (what: (a: Point, b: Point) => boolean) => expect(() => fc.assert(fc.property(point, point, what))).not.toThrow();
  const sees = (a: Point, b: Point) => isInSight({ walls: [wall] }, a.x, a.y, b.x, b.y);

  it('is the same both ways', () => {
    holds((a, b) => sees(a, b) === sees(b, a));
  });

  it('is blocked where any point in between lies in the wall', () => {
    const lies = (x: number, y: number) => x > 100.01 && x < 149.99 && y > 100.01 && y < 119.99;
    const shares = Array.from({ length: 400 }, (_, i) => i / 399);
    holds((a, b) => !shares.some((share) => lies(a.x + (b.x - a.x) * share, a.y + (b.y - a.y) * share)) || !sees(a, b));
  });

  it('is there where no way crosses the wall', () => {
    holds((a, b) => (crossing(wall, 0, a.x, a.y, b.x, b.y) === undefined) === sees(a, b));
  });
});

it('Nothing of a fight is left when all is over', () => {
  const trial = row(shot({ count: 8, spread: 360, pierce: 3 }), [200, 300]);
  for (let i = 0; i < 5; i++) ask(trial, { x: 700, y: 100 });
  trial.run(3);
  for (const table of ['projectiles', 'strikes', 'areas', 'casts', 'paid']) expect(trial.world.table(table).count).toBe(0);
  expect(at(trial).x).toBe(100);
});
