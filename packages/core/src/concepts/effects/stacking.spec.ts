import * as fc from 'fast-check';
import { join, Trial } from '../../testing/rulesets.js';
import { applyTo as apply, effect, giveOne as give, speedOf as speed, withEffects as of } from '../../testing/effects.js';
import { effectsTable } from './tables.js';
import { statusesTable } from '../statuses/tables.js';
import { attributesTable, modifiersTable } from '../attributes/tables.js';

describe('Stacking', () => {
  it('separate: each on its own clock, up to the most', () => {
    const trial = of(effect('e', { lasts: '4s', most: 2 }));
    for (let i = 0; i < 3; i++) apply(trial);
    expect(speed(trial)).toBe(120);
    expect(trial.named('effectRefused')[0].data).toEqual({ effect: 'e', why: 'most' });
  });

  it('refresh: the time begins anew and stacks count', () => {
    const trial = of(effect('e', { lasts: '4s', stacking: 'refresh', most: 3, onStack: give('stacksHad') }));
    apply(trial);
    trial.run(2);
    apply(trial);
    expect(speed(trial)).toBe(120);
    trial.run(3.9);
    expect(speed(trial)).toBe(120);
    trial.run(0.1);
    expect([speed(trial), trial.value('starts'), trial.value('stacksHad'), trial.value('ends')]).toEqual([100, 1, 1, 1]);
    for (let i = 0; i < 5; i++) apply(trial);
    expect(speed(trial)).toBe(130);
  });

  it('refresh of a product takes it as often as it is stacked', () => {
    const trial = of(
      effect('e', { lasts: '4s', stacking: 'refresh', most: 3, modifiers: [{ attribute: 'finSpeed', operation: 'times', amount: 2 }] }),
    );
    for (let i = 0; i < 3; i++) apply(trial);
    expect(speed(trial)).toBe(800);
  });

  it('refresh takes each amount anew for its own modifier, also under edited rules', () => {
    const modifiers = [
      { attribute: 'finSpeed', operation: 'add', amount: 'suit' },
      { attribute: 'finSpeed', operation: 'times', amount: 2 },
    ];
    const trial = of(effect('e', { lasts: '9s', stacking: 'refresh', modifiers }));
    apply(trial);
    expect(speed(trial)).toBe(400);
    trial.world = trial.world.adopt(trial.rules);
    trial.poke({ do: 'set', attribute: 'suit', value: 50 });
    apply(trial);
    expect(speed(trial)).toBe(300);
  });

  it('extend: what is left grows by its length, up to the most lengths', () => {
    const trial = of(effect('e', { lasts: '2s', stacking: 'extend', most: 3 }));
    for (let i = 0; i < 6; i++) apply(trial);
    expect(speed(trial)).toBe(110);
    trial.run(5.95);
    expect(speed(trial)).toBe(110);
    trial.run(0.05);
    expect(speed(trial)).toBe(100);
  });

  it('strongest: all run, the strongest counts, and the next takes over', () => {
    const trial = of(
      effect('e', { lasts: '4s', stacking: 'strongest', modifiers: [{ attribute: 'finSpeed', operation: 'add', amount: 'suit' }] }),
    );
    const at = (suit: number) => {
      trial.poke({ do: 'set', attribute: 'suit', value: suit });
      apply(trial);
    };
    at(50);
    expect(speed(trial)).toBe(150);
    trial.run(1);
    at(80);
    expect(speed(trial)).toBe(180);
    trial.run(1);
    at(20);
    expect(speed(trial)).toBe(180);
    trial.run(2.9);
    expect(speed(trial)).toBe(120);
    trial.run(1.2);
    expect(speed(trial)).toBe(100);
  });

  it('once: another is refused while one is on', () => {
    const trial = of(effect('e', { lasts: '2s', stacking: 'once' }));
    apply(trial);
    apply(trial);
    expect(speed(trial)).toBe(110);
    expect(trial.named('effectRefused')[0].data['why']).toBe('once');
    trial.run(2);
    apply(trial);
    expect(speed(trial)).toBe(110);
  });

  it('per source: each source is counted apart', () => {
    const build = (per: string) =>
      new Trial(of(effect('e', { lasts: '9s', stacking: 'once', per })).rules, [join('north'), join('south'), join('east')]);
    const trial = build('source');
    for (const from of ['south', 'east', 'south']) apply(trial, 'e', from);
    expect(speed(trial)).toBe(120);
    const other = build('target');
    for (const from of ['south', 'east', 'south']) apply(other, 'e', from);
    expect(speed(other)).toBe(110);
  });
});

describe('Effects of every kind together', () => {
  const STACKINGS = ['separate', 'refresh', 'extend', 'strongest', 'once'] as const;
  const kinds = fc.record({
    stacking: fc.constantFrom(...STACKINGS),
    lasts: fc.integer({ min: 1, max: 60 }),
    most: fc.option(fc.integer({ min: 1, max: 4 }), { nil: undefined }),
    per: fc.constantFrom('target', 'source'),
    operation: fc.constantFrom('add', 'percent', 'times', 'set', 'atLeast', 'atMost'),
    amount: fc.integer({ min: -150, max: 300 }),
    live: fc.boolean(),
  });
  const deeds = fc.array(
    fc.record({
      which: fc.integer({ min: 0, max: 3 }),
      end: fc.boolean(),
      from: fc.constantFrom(undefined, 'south'),
      wait: fc.integer({ min: 0, max: 30 }),
    }),
    { maxLength: 25 },
  );

  it('keep bounds, count statuses right, end on their tick, and give back exactly the base', () => {
    fc.assert(
      fc.property(fc.array(kinds, { minLength: 4, maxLength: 4 }), deeds, (list, what) => {
        const effects = list.map(({ stacking, lasts, most, per, operation, amount, live }, i) => ({
          id: `e${i}`,
          label: `E${i}`,
          lasts: `${lasts * 50}ms`,
          stacking,
          per,
          ...(most !== undefined && stacking !== 'once' && { most }),
          grants: i < 2 ? ['winded'] : ['silted'],
          modifiers: [{ attribute: 'finSpeed', operation, amount: live ? `${amount} + 0 * suit` : amount, live }],
        }));
        const base = of(...effects);
        const trial = new Trial(base.rules, [join('north'), join('south')]);
        const table = effectsTable.in(trial.world);
        const check = () => {
          const kindOf = table.cells.effect;
          const live = [...Array(table.high).keys()].filter((at) => table.live[at] === 1);
          for (const at of live) expect(table.cells.ends[at]).toBeGreaterThan(trial.world.tick);
          const grants = (from: number, to: number) => live.filter((at) => kindOf[at] >= from && kindOf[at] < to).length;
          const statuses = statusesTable.in(trial.world);
          expect(statuses.cells.winded[0]).toBe(grants(0, 2));
          expect(statuses.cells.silted[0]).toBe(grants(2, 4));
          expect(speed(trial)).toBeGreaterThanOrEqual(0);
          expect(speed(trial)).toBeLessThanOrEqual(900);
          expect(modifiersTable.in(trial.world).count).toBe(live.length);
          list.forEach(({ stacking, most }, i) => {
            const count = live.filter((at) => kindOf[at] === i).length;
            if (stacking === 'once' || stacking === 'refresh' || stacking === 'extend') expect(count).toBeLessThanOrEqual(2);
            else if (most !== undefined) expect(count).toBeLessThanOrEqual(most * 2);
          });
        };
        for (const { which, end, from, wait } of what) {
          if (end) trial.poke({ do: 'end', effect: `e${which}` });
          else apply(trial, `e${which}`, from);
          check();
          for (let n = 0; n < wait; n++) trial.step();
          check();
        }
        trial.run(40);
        expect(table.count).toBe(0);
        expect(attributesTable.in(trial.world).cells.finSpeed[0]).toBe(100);
      }),
      { numRuns: 80 },
    );
  });
});
