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

  type Kind = typeof kinds extends fc.Arbitrary<infer T> ? T : never;

  /** Has effects of these kinds come and go; at every moment, and in the end, what is to hold is looked at. */
  const holds = (what: (trial: Trial, list: readonly Kind[], live: readonly number[]) => boolean) =>
    expect(() =>
      fc.assert(
        fc.property(fc.array(kinds, { minLength: 4, maxLength: 4 }), deeds, (list, done) => {
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
          const trial = new Trial(of(...effects).rules, [join('north'), join('south')]);
          const table = effectsTable.in(trial.world);
          const live = () => [...Array(table.high).keys()].filter((at) => table.live[at] === 1);
          const held = done.every(({ which, end, from, wait }) => {
            if (end) trial.poke({ do: 'end', effect: `e${which}` });
            else apply(trial, `e${which}`, from);
            const atOnce = what(trial, list, live());
            trial.run(wait / 20);
            return atOnce && what(trial, list, live());
          });
          trial.run(2);
          return held && what(trial, list, live());
        }),
        { numRuns: 30 },
      ),
    ).not.toThrow();
  const kindsOf = (trial: Trial, live: readonly number[]) => live.map((at) => effectsTable.in(trial.world).cells.effect[at]);

  it('end on their tick', () => {
    holds((trial, _, live) => live.every((at) => effectsTable.in(trial.world).cells.ends[at] > trial.world.tick));
  });

  it('count the statuses that they grant', () => {
    holds((trial, _, live) => {
      const { winded, silted } = statusesTable.in(trial.world).cells;
      const granting = kindsOf(trial, live).filter((kind) => kind < 2).length;
      return winded[0] === granting && silted[0] === live.length - granting;
    });
  });

  it('keep what they change within its bounds', () => {
    holds((trial) => speed(trial) >= 0 && speed(trial) <= 900);
  });

  it('have the modifiers that belong to them, and no others', () => {
    holds((trial, _, live) => modifiersTable.in(trial.world).count === live.length);
  });

  it('stand on one by no more instances than their stacking allows, for each of two sources', () => {
    holds((trial, list, live) =>
      list.every(({ stacking, most = Infinity }, i) => {
        const one = stacking === 'once' || stacking === 'refresh' || stacking === 'extend';
        return kindsOf(trial, live).filter((kind) => kind === i).length <= 2 * (one ? 1 : most);
      }),
    );
  });

  it('give back exactly the base once all are over', () => {
    holds((trial, _, live) => live.length > 0 || attributesTable.in(trial.world).cells.finSpeed[0] === 100);
  });
});
