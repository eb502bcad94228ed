import * as fc from 'fast-check';
import { readRuleset, World } from '../../index.js';
import { join, pool, rulesetWith, stat, Trial } from '../../testing/rulesets.js';
import { attributesTable } from './tables.js';

const problemsOf = (attributes: unknown[]) =>
  readRuleset(rulesetWith({ attributes })).problems.map(({ path, message }) => `${path} ${message}`);

describe('The start of a value', () => {
  it('is an amount, full, a share of the maximum, or luck', () => {
    const trial = Trial.of({
      attributes: [
        pool('suit', { start: 'full' }),
        pool('oxygen', { start: { share: 0.25 }, max: 'lungs' }),
        stat('lungs', 80),
        pool('luck', { start: { random: [20, 30], whole: true } }),
      ],
    });
    expect(trial.value('suit')).toBe(100);
    expect(trial.value('oxygen')).toBe(20);
    expect(trial.value('luck')).toBeGreaterThanOrEqual(20);
    expect(trial.value('luck')).toBeLessThanOrEqual(30);
  });

  it('is refused as a share of no maximum, and as luck beyond a bound', () => {
    expect(problemsOf([pool('suit', { max: undefined, start: 'full' })])[0]).toContain(
      '/attributes/0/start Suit has no maximum'.replace('Suit', 'suit'),
    );
    expect(problemsOf([pool('suit', { start: { share: 2 } })])[0]).toContain('A share is 0 to 1');
    expect(problemsOf([pool('suit', { start: { random: [50, 150] } })])).toEqual([
      '/attributes/0/start The start 150 is above the maximum 100.',
    ]);
  });
});

describe('A pool whose maximum moves', () => {
  const follows = (follow: string) =>
    Trial.of({
      attributes: [pool('oxygen', { max: 'lungs', start: 45, follow }), stat('lungs', 90)],
      effects: [{ id: 'bigLungs', label: 'Big lungs', lasts: '2s', modifiers: [{ attribute: 'lungs', operation: 'add', amount: 30 }] }],
    });
  const grown = (follow: string) => {
    const trial = follows(follow);
    trial.poke({ do: 'apply', effect: 'bigLungs' });
    const during = trial.value('oxygen');
    trial.run(3);
    return [during, trial.value('oxygen')];
  };

  it('keeps its value, keeps its share, or moves along', () => {
    expect(grown('keep')).toEqual([45, 45]);
    expect(grown('share')).toEqual([60, 45]);
    expect(grown('along')).toEqual([75, 45]);
  });

  it('comes back also from a maximum of nothing', () => {
    const through = (follow: string) => {
      const trial = follows(follow);
      for (const value of [0, 90]) trial.poke({ do: 'set', attribute: 'lungs', value });
      return trial.value('oxygen');
    };
    expect(['keep', 'share', 'along'].map(through)).toEqual([0, 45, 90]);
  });

  it('loses what is above a maximum that falls, and does not get it back', () => {
    const trial = follows('keep');
    trial.poke({ do: 'set', attribute: 'lungs', value: 30 });
    trial.poke({ do: 'set', attribute: 'lungs', value: 90 });
    expect(trial.value('oxygen')).toBe(30);
  });

  it('has exactly its share back when the maximum is back, however often it went', () => {
    const moves = fc.array(fc.integer({ min: 0, max: 400 }), { minLength: 1, maxLength: 12 });
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 90, noNaN: true }), moves, fc.boolean(), (start, maxima, whole) => {
        const own = whole ? Math.ceil(start) : start;
        const trial = Trial.of({ attributes: [pool('oxygen', { max: 'lungs', start: own, follow: 'share', whole }), stat('lungs', 90)] });
        const cells = () => attributesTable.in(trial.world).cells.oxygen[0];
        const before = cells();
        for (const value of [...maxima, 90]) trial.poke({ do: 'set', attribute: 'lungs', value });
        expect(cells()).toBe(before);
      }),
      { numRuns: 60 },
    );
  });

  it('follows only a maximum that there is', () => {
    expect(problemsOf([pool('suit', { max: undefined, follow: 'share' })])[0]).toContain('has no maximum to follow');
    expect(problemsOf([stat('speed', 1, { follow: 'along' })])[0]).toContain('has no maximum to follow');
  });
});

describe('Refill', () => {
  it('happens only while its condition holds', () => {
    const trial = Trial.of({
      attributes: [pool('oxygen', { start: 10, refill: { rate: 10, while: 'has(inBell)' } })],
      statuses: [{ id: 'inBell', label: 'In bell' }],
    });
    trial.run(2);
    expect(trial.value('oxygen')).toBe(10);
    trial.poke({ do: 'grant', status: 'inBell' });
    trial.run(1.95);
    expect(trial.value('oxygen')).toBe(30);
    trial.poke({ do: 'withdraw', status: 'inBell' });
    trial.run(2);
    expect(trial.value('oxygen')).toBe(30);
  });
});

describe('What is remembered between ticks', () => {
  it('leaves no trace: a world that was just restored does the same', () => {
    const deed = fc.record({
      do: fc.constantFrom('hurt', 'apply', 'grant', 'withdraw', 'set', 'nothing'),
      amount: fc.integer({ min: 1, max: 60 }),
    });
    const parts = {
      attributes: [
        pool('oxygen', {
          max: 'lungs',
          follow: 'share',
          refill: { rate: 'has(inBell) ? breath : -0.1 * breath', while: 'breath > 2' },
          thresholds: [{ id: 'low', to: '0.3 * lungs', margin: 'breath', enter: [{ do: 'heal', attribute: 'suit', amount: 3 }] }],
        }),
        pool('suit', { whole: true, refill: { rate: 'breath', pause: '200ms' } }),
        stat('lungs', 90),
        stat('breath', 6),
      ],
      statuses: [{ id: 'inBell', label: 'In bell' }],
      effects: [
        { id: 'warm', label: 'Warm', lasts: '1s', modifiers: [{ attribute: 'breath', operation: 'add', amount: 'suit / 10', live: true }] },
      ],
    };
    fc.assert(
      fc.property(fc.array(deed, { maxLength: 30 }), (deeds) => {
        const trial = new Trial(Trial.of(parts).rules, [join('north'), join('south')]);
        for (const { do: what, amount } of deeds) {
          const action = {
            hurt: { do: 'hurt', attribute: amount % 2 ? 'oxygen' : 'suit', amount },
            apply: { do: 'apply', effect: 'warm' },
            grant: { do: 'grant', status: 'inBell' },
            withdraw: { do: 'withdraw', status: 'inBell' },
            set: { do: 'set', attribute: amount % 2 ? 'lungs' : 'breath', value: amount },
            nothing: { do: 'give', attribute: 'oxygen', amount: 0 },
          }[what];
          const command = { kind: 'poke', args: { seat: amount % 3 ? 'north' : 'south', action } };
          const restored = World.restore(trial.rules, trial.world.snapshot());
          restored.step([command]);
          trial.step(command);
          expect(restored.hash()).toBe(trial.world.hash());
          trial.run(0.15);
        }
      }),
      { numRuns: 40 },
    );
  });
});

describe('A resistance', () => {
  const parts = {
    attributes: [pool('suit', { taken: 'event.asked * (has(marked) ? 1.25 : 0.5) - source.plating' }), stat('plating', 2)],
    statuses: [{ id: 'marked', label: 'Marked' }],
  };

  it('says how much gets through; what it kept off is reported', () => {
    const trial = Trial.of(parts);
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 40 });
    expect(trial.value('suit')).toBe(80);
    expect(trial.named('attributeChanged')[0].data).toEqual(
      jasmine.objectContaining({ asked: -40, given: -20, lost: 0, resisted: -20, how: 'hurt' }),
    );
    trial.poke({ do: 'grant', status: 'marked' });
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 40 });
    expect(trial.value('suit')).toBe(30);
    expect(trial.named('attributeChanged')[1].data['resisted']).toBe(10);
  });

  it('reads who it comes from', () => {
    const trial = Trial.of(parts, [join('north'), join('south')]);
    trial.step({ kind: 'poke', args: { seat: 'north', from: 'south', action: { do: 'hurt', attribute: 'suit', amount: 40 } } });
    expect(trial.value('suit')).toBe(82);
  });

  it('stands in the way of harm alone, and never heals', () => {
    const trial = Trial.of({ attributes: [pool('suit', { start: 50, taken: '0 - event.asked' })] });
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 10 });
    expect(trial.value('suit')).toBe(50);
    trial.poke({ do: 'set', attribute: 'suit', value: 20 });
    expect(trial.value('suit')).toBe(20);
  });

  it('accounts for everything: asked = given + lost + resisted', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 150 }), { maxLength: 8 }),
        fc.integer({ min: 0, max: 300 }),
        fc.boolean(),
        (hits, percent, whole) => {
          const trial = Trial.of({ attributes: [pool('suit', { whole, taken: `event.asked * ${percent / 100}` })] });
          for (const amount of hits) trial.poke({ do: 'hurt', attribute: 'suit', amount });
          for (const { data } of trial.named('attributeChanged'))
            expect(Number(data['given']) + Number(data['lost']) + Number(data['resisted'] ?? 0)).toBeCloseTo(Number(data['asked']), 5);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('is no part of a stat, and reads no other event', () => {
    expect(problemsOf([stat('speed', 1, { taken: 'event.asked' })])[0]).toContain('A stat is not hurt');
    expect(problemsOf([pool('suit', { taken: 'event.askd' })])[0]).toContain(
      'The event carries no askd; it carries asked. Did you mean asked?',
    );
    expect(problemsOf([pool('suit', { max: 'event.asked' })])[0]).toContain('There is no event here');
  });
});
