import * as fc from 'fast-check';
import { counter, join, poke, pool, stat, Trial } from '../../testing/rulesets.js';

const give = (attribute: string) => [{ do: 'give', attribute, amount: 1 }];
const effect = (id: string, operation: string, amount: number, more: Record<string, unknown> = {}) => ({
  id,
  label: id,
  lasts: '3s',
  modifiers: [{ attribute: 'lungs', operation, amount }],
  ...more,
});
const apply = (id: string) => poke('north', { do: 'apply', effect: id });

describe('A value that settles', () => {
  const breathing = (follow: string, effects: unknown[]) =>
    Trial.of({ attributes: [pool('oxygen', { max: 'lungs', follow }), stat('lungs', 100), counter('full'), counter('short')], effects });

  it('is clipped once, by what all that came and went in a tick comes to', () => {
    const effects = [effect('deep', 'add', 20), effect('tight', 'percent', -25)];
    for (const order of [
      ['deep', 'tight'],
      ['tight', 'deep'],
    ]) {
      const trial = breathing('keep', effects);
      trial.step(...order.map(apply));
      expect([order, trial.value('oxygen'), trial.value('lungs')]).toEqual([order, 90, 90]);
      trial.run(3);
      expect([order, trial.value('oxygen'), trial.value('lungs')]).toEqual([order, 90, 100]);
    }
  });

  it('is the same world in whatever order the same effects come and go in a tick', () => {
    const one = fc.record({
      operation: fc.constantFrom('add', 'percent', 'times', 'atMost', 'atLeast'),
      amount: fc.integer({ min: -40, max: 60 }),
      ticks: fc.integer({ min: 1, max: 6 }),
    });
    const deal = fc
      .array(one, { minLength: 2, maxLength: 5 })
      .chain((list) => fc.record({ list: fc.constant(list), order: fc.shuffledSubarray([...list.keys()], { minLength: list.length }) }));
    fc.assert(
      fc.property(deal, fc.constantFrom('keep', 'along', 'share'), fc.integer({ min: 0, max: 100 }), ({ list, order }, follow, start) => {
        const effects = list.map(({ operation, amount, ticks }, i) =>
          effect(`e${i}`, operation, operation === 'times' ? Math.abs(amount) / 40 : amount, { lasts: `${ticks * 50}ms` }),
        );
        const run = (deals: readonly number[]) => {
          const trial = Trial.of({
            attributes: [
              pool('oxygen', {
                max: 'lungs',
                follow,
                refill: { rate: 4 },
                thresholds: [
                  { id: 'low', to: 'lungs / 3', enter: give('short') },
                  { id: 'full', end: 'full', enter: give('full') },
                ],
              }),
              stat('lungs', 100),
              counter('full'),
              counter('short'),
            ],
            effects,
          });
          trial.poke({ do: 'set', attribute: 'oxygen', value: start });
          trial.step(...deals.map((i) => apply(`e${i}`)));
          const values: number[][] = [];
          for (let tick = 0; tick < 9; tick++) {
            values.push(['oxygen', 'lungs', 'full', 'short'].map((id) => trial.value(id)));
            trial.step();
          }
          return values;
        };
        expect(run(order)).toEqual(run([...list.keys()]));
      }),
      { numRuns: 60 },
    );
  });

  it('is never healed by its own bounds, nor hurt by a heal, before they clip it', () => {
    const trial = breathing('keep', [effect('tight', 'percent', -50)]);
    const events = trial.step(apply('tight'), poke('north', { do: 'heal', attribute: 'oxygen', amount: 5 }));
    expect(events.find((event) => event.name === 'attributeChanged')!.data).toEqual(
      jasmine.objectContaining({ from: 100, to: 100, given: 0, lost: 5 }),
    );
    expect(trial.value('oxygen')).toBe(50);
  });

  it('crosses what it reaches however briefly, and is answered in order', () => {
    const trial = Trial.of({
      attributes: [
        pool('oxygen', {
          thresholds: [
            { id: 'out', end: 'empty' },
            { id: 'low', to: 30 },
            { id: 'full', end: 'full' },
          ],
        }),
      ],
    });
    trial.events = [];
    trial.step(
      poke('north', { do: 'hurt', attribute: 'oxygen', amount: 100 }),
      poke('north', { do: 'heal', attribute: 'oxygen', amount: 100 }),
    );
    const told = trial.events
      .filter((event) => event.name.startsWith('threshold'))
      .map(({ name, data }) => `${name.slice(9)} ${data['threshold']} ${data['value']}`);
    expect(told).toEqual(['Entered out 0', 'Entered low 0', 'Left full 0', 'Left out 100', 'Left low 100', 'Entered full 100']);
  });

  it('is crossed once per crossing, under random hurts, heals, refills and intervals', () => {
    const deed = fc.record({ amount: fc.integer({ min: -70, max: 70 }), wait: fc.integer({ min: 0, max: 3 }), later: fc.boolean() });
    const ranges = fc.constantFrom<readonly [number, number, Record<string, unknown>]>(
      [-Infinity, 0, { end: 'empty' }],
      [100, Infinity, { end: 'full' }],
      [-Infinity, 30, { to: 30 }],
      [40, 60, { from: 40, to: 60 }],
    );
    fc.assert(
      fc.property(
        fc.array(deed, { maxLength: 30 }),
        ranges,
        fc.integer({ min: 0, max: 15 }),
        fc.integer({ min: -40, max: 40 }),
        fc.integer({ min: 1, max: 5 }),
        (deeds, [low, high, place], margin, rate, every) => {
          const trial = Trial.of({
            attributes: [
              pool('oxygen', {
                start: 50,
                refill: { rate, every: `${every * 50}ms` },
                thresholds: [{ id: 't', ...place, margin, enter: give('entered'), leave: give('left') }],
              }),
              counter('entered'),
              counter('left'),
            ],
          });
          // What the pool was, one value after the other, as the changes and the ends of ticks tell it.
          let side = 50 >= low && 50 <= high;
          let [entered, left] = [side ? 1 : 0, 0];
          const look = (value: number) => {
            const slack = side ? margin : 0;
            const is = value >= low - slack && value <= high + slack;
            if (is !== side && is) entered++;
            if (is !== side && !is) left++;
            side = is;
          };
          const step = (...pokes: Parameters<Trial['step']>) => {
            for (const { name, data } of trial.step(...pokes))
              if (name === 'attributeChanged' && data['attribute'] === 'oxygen') look(Number(data['to']));
            look(trial.value('oxygen'));
          };
          look(trial.value('oxygen'));
          let together: ReturnType<typeof poke>[] = [];
          for (const { amount, wait, later } of deeds) {
            together.push(poke('north', { do: amount < 0 ? 'hurt' : 'heal', attribute: 'oxygen', amount: Math.abs(amount) }));
            if (later) continue;
            step(...together);
            together = [];
            for (let n = 0; n < wait; n++) step();
          }
          step(...together);
          trial.step();
          look(trial.value('oxygen'));
          expect([trial.value('entered'), trial.value('left')]).toEqual([entered, left]);
        },
      ),
      { numRuns: 80 },
    );
  });

  it('leads back from the threshold to the blow', () => {
    const trial = Trial.of({
      attributes: [pool('oxygen', { thresholds: [{ id: 'low', to: 30 }] }), stat('lungs', 100, { thresholds: [{ id: 'tight', to: 60 }] })],
      effects: [effect('tight', 'percent', -50)],
    });
    const hurt = trial.poke({ do: 'hurt', attribute: 'oxygen', amount: 80 });
    const blow = hurt.find((event) => event.name === 'attributeChanged')!;
    expect(hurt.find((event) => event.name === 'thresholdEntered')!.cause).toBe(blow.serial);
    const tight = trial.poke({ do: 'apply', effect: 'tight' });
    const started = tight.find((event) => event.name === 'effectStarted')!;
    expect(tight.find((event) => event.name === 'thresholdEntered')!.cause).toBe(started.serial);
    trial.run(2.95);
    const over = trial.step();
    expect(over.find((event) => event.name === 'thresholdLeft')!.cause).toBe(over.find((event) => event.name === 'effectEnded')!.serial);
  });
});

describe('A life that refills', () => {
  const arena = {
    width: 800,
    height: 400,
    starts: [{ x: 100, y: 100 }],
    placed: [
      { pickup: 'urchin', x: 300, y: 100 },
      { zone: 'vent', x: 500, y: 100, radius: 40 },
    ],
  };
  const hurt = { do: 'hurt', attribute: 'suit', amount: 1000 };
  const diver = {
    id: 'diver',
    label: 'Diver',
    kind: 'player',
    life: 'suit',
    attributes: ['suit', 'empties', 'leaves'].map((attribute) => ({ attribute })),
    abilities: ['burst', 'dart', 'cloud'],
  };
  const parts = (refill: Record<string, unknown> = { rate: 5 }, more: Record<string, unknown> = {}) => ({
    attributes: [
      pool('suit', { refill, thresholds: [{ id: 'out', end: 'empty', enter: give('empties'), leave: give('leaves'), ...more }] }),
      counter('empties'),
      counter('leaves'),
    ],
    effects: [
      { id: 'blast', label: 'Blast', lifetime: 'instant', onStart: [hurt] },
      { id: 'rot', label: 'Rot', lasts: '1s', periodic: { every: '200ms', then: [hurt] } },
    ],
    abilities: [
      { id: 'burst', label: 'Burst', then: [hurt] },
      { id: 'cloud', label: 'Cloud', deliver: { by: 'area', radius: 50, who: 'anyone' }, onHit: [{ ...hurt, to: 'target' }] },
      {
        id: 'dart',
        label: 'Dart',
        target: { at: 'direction', range: 300 },
        deliver: { by: 'projectile', speed: 400, lifetime: '1s' },
        onHit: [{ ...hurt, to: 'target' }],
      },
    ],
    pickups: [{ id: 'urchin', label: 'Urchin', radius: 10, then: [hurt] }],
    zones: [{ id: 'vent', label: 'Vent', onEnter: [hurt] }],
    actors: [diver],
    arena,
  });
  const place = (x: number) => poke('north', { do: 'place', x, y: 100 });
  const WAYS: Readonly<Record<string, (trial: Trial) => void>> = {
    poke: (trial) => void trial.poke(hurt),
    'a poke of twice as much and a heal': (trial) =>
      void trial.step(poke('north', hurt), poke('north', { ...hurt, do: 'heal', amount: 40 })),
    ability: (trial) => void trial.use('burst'),
    pickup: (trial) => void trial.step(place(300)),
    zone: (trial) => void trial.step(place(500)),
    'instant effect': (trial) => void trial.poke({ do: 'apply', effect: 'blast' }),
    'periodic effect': (trial) => void trial.poke({ do: 'apply', effect: 'rot' }),
  };

  for (const [way, harm] of Object.entries(WAYS))
    it(`ends at the bottom by ${way}, at whatever moment of its refill`, () => {
      for (const refill of [{ rate: 5 }, { rate: 5, every: '200ms' }, { rate: 900, every: '150ms' }])
        for (let wait = 0; wait < 5; wait++) {
          const trial = Trial.of(parts(refill));
          for (let n = 0; n < wait; n++) trial.step();
          harm(trial);
          trial.run(1);
          expect([trial.named('actorDefeated').length, trial.value('empties')]).toEqual([1, 1]);
          expect(trial.value('suit')).toBe(way.endsWith('heal') ? 40 : 0);
        }
    });

  it('ends at the bottom by a projectile or an area of another', () => {
    for (const ability of ['dart', 'cloud'])
      for (let wait = 0; wait < 5; wait++) {
        const trial = Trial.of({ ...parts({ rate: 5, every: '250ms' }), arena: { starts: [{ x: 100, y: 100 }] } }, [
          join('north'),
          join('south'),
        ]);
        trial.step(poke('south', { do: 'place', x: 130, y: 100 }));
        for (let n = 0; n < wait; n++) trial.step();
        trial.step({
          kind: 'input',
          args: { seat: 'north', input: { do: 'use', ability, ...(ability === 'dart' && { x: 300, y: 100 }) } },
        });
        trial.run(1);
        expect([trial.named('actorDefeated').map(({ who, by }) => `${who} by ${by}`), trial.value('suit', 'south')]).toEqual([
          ['south by north'],
          0,
        ]);
      }
  });

  it('ends by what a reaction does, and reads nothing in between', () => {
    const trial = Trial.of({
      ...parts(),
      reactions: [{ id: 'curse', label: 'Curse', on: { on: 'pickupTaken' }, then: [hurt] }],
      pickups: [{ id: 'urchin', label: 'Urchin', radius: 10, then: [] }],
    });
    trial.step(place(300));
    const read: number[] = [];
    for (let n = 0; n < 5; n++) {
      read.push(trial.value('suit'));
      trial.step();
    }
    expect(read).toEqual([0, 0, 0, 0, 0]);
    expect([trial.named('actorDefeated').length, trial.value('empties')]).toEqual([1, 1]);
  });

  it('rests while it is down, and refills again once it is back', () => {
    const trial = Trial.of({ ...parts(), actors: [{ ...diver, respawn: { after: '2s' } }] });
    trial.poke(hurt);
    trial.run(1.9);
    expect([trial.value('suit'), trial.value('leaves')]).toEqual([0, 0]);
    trial.run(0.2);
    expect([trial.value('suit'), trial.value('leaves')]).toEqual([100, 1]);
    trial.poke({ ...hurt, amount: 50 });
    trial.run(1);
    expect(trial.value('suit')).toBe(55.3);
  });

  it('is saved by what its empty threshold leads to, but by nothing that came before', () => {
    const trial = Trial.of(parts({ rate: 5 }, { enter: [{ do: 'heal', attribute: 'suit', amount: 20 }, ...give('empties')] }));
    trial.poke(hurt);
    expect([trial.named('actorDefeated').length, trial.value('suit')]).toEqual([0, 20]);
    trial.run(1);
    expect([trial.named('actorDefeated').length, trial.value('suit')]).toEqual([0, 25]);
  });

  it('is not saved by what another pool’s end leads to', () => {
    const stamina = pool('stamina', {
      thresholds: [{ id: 'spent', end: 'empty', enter: [{ do: 'heal', attribute: 'stamina', amount: 20 }] }],
    });
    const { attributes, ...more } = parts();
    const owned = { ...diver, attributes: [...diver.attributes, { attribute: 'stamina' }] };
    const trial = Trial.of({ ...more, attributes: [...attributes, stamina], actors: [owned] });
    trial.step(poke('north', hurt), poke('north', { ...hurt, do: 'heal', amount: 40 }), poke('north', { ...hurt, attribute: 'stamina' }));
    expect([trial.value('stamina'), trial.named('actorDefeated').length]).toEqual([20, 1]);
  });

  it('is answered after a snapshot and after an edit as it would have been', () => {
    for (const between of [(trial: Trial) => void trial.restore(), (trial: Trial) => void (trial.world = trial.world.adopt(trial.rules))]) {
      const trial = Trial.of({ ...parts(), reactions: [{ id: 'curse', label: 'Curse', on: { on: 'pickupTaken' }, then: [hurt] }] });
      trial.step(place(300));
      between(trial);
      trial.step();
      expect([trial.named('actorDefeated').length, trial.value('empties')]).toEqual([1, 1]);
    }
  });
});
