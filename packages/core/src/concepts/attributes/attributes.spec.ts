import * as fc from 'fast-check';
import { counter, pool, stat, Trial } from '../../testing/rulesets.js';
import { readRuleset } from '../../index.js';
import { rulesetWith } from '../../testing/rulesets.js';
import { attributesTable } from './tables.js';

describe('A pool', () => {
  it('starts full, or where its author says', () => {
    const trial = Trial.of({ attributes: [pool('suit'), pool('oxygen', { start: 40 }), pool('air', { max: 'lungs' }), stat('lungs', 90)] });
    expect(trial.value('suit')).toBe(100);
    expect(trial.value('oxygen')).toBe(40);
    expect(trial.value('air')).toBe(90);
  });

  it('refills per second, to its maximum and not beyond', () => {
    const trial = Trial.of({ attributes: [pool('stamina', { start: 0, refill: { rate: 12 } })] });
    trial.run(5);
    expect(trial.value('stamina')).toBe(60.6); // the tick in which the seat was taken counts
    trial.run(5);
    expect(trial.value('stamina')).toBe(100);
  });

  it('drains exactly: 20 s at 1.5 a second are 30', () => {
    const trial = Trial.of({ attributes: [pool('oxygen', { max: 90, refill: { rate: -1.5 } })] });
    trial.run(19.95);
    expect(attributesTable.in(trial.world).cells.oxygen[0]).toBe(60);
  });

  it('refills on its own interval', () => {
    const trial = Trial.of({ attributes: [pool('oxygen', { start: 0, refill: { rate: 4, every: '250ms' } })] });
    expect(trial.value('oxygen')).toBe(0);
    trial.run(0.2);
    expect(trial.value('oxygen')).toBe(1);
    trial.run(0.2);
    expect(trial.value('oxygen')).toBe(1);
  });

  it('rests after a loss, drains all the same', () => {
    const trial = Trial.of({ attributes: [pool('suit', { refill: { rate: 4, pause: '3s' } })] });
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 50 });
    trial.run(2.95);
    expect(trial.value('suit')).toBe(50);
    trial.run(1.05);
    expect(trial.value('suit')).toBe(54.2);
  });

  it('loses over-heal and overkill, and says how much', () => {
    const trial = Trial.of({ attributes: [pool('suit', { start: 90 })] });
    trial.poke({ do: 'heal', attribute: 'suit', amount: 30 });
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 120 });
    expect(trial.value('suit')).toBe(0);
    expect(trial.named('attributeChanged').map((e) => e.data)).toEqual([
      { attribute: 'suit', from: 90, to: 100, asked: 30, given: 10, lost: 20, how: 'heal' },
      { attribute: 'suit', from: 100, to: 0, asked: -120, given: -100, lost: -20, how: 'hurt' },
    ]);
  });

  it('stays whole where its author says so, and loses no fraction of its refill', () => {
    const trial = Trial.of({ attributes: [pool('suit', { start: 0, whole: true, refill: { rate: 4 } })] });
    const seen = new Set<number>();
    for (let i = 0; i < 99; i++) {
      trial.step();
      seen.add(trial.value('suit'));
    }
    expect(trial.value('suit')).toBe(20);
    expect([...seen].every(Number.isInteger)).toBeTrue();
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 2.6 });
    expect(trial.value('suit')).toBe(17);
  });

  it('is set to the same whole wherever it was, and is not told of what comes to nothing', () => {
    for (const from of [0, 5, 12, 20]) {
      const trial = Trial.of({ attributes: [pool('suit', { whole: true, max: 40 })] });
      trial.poke({ do: 'set', attribute: 'suit', value: from });
      trial.poke({ do: 'set', attribute: 'suit', value: 6.5 });
      expect(trial.value('suit')).withContext(`from ${from}`).toBe(7);
      trial.events = [];
      for (const how of ['heal', 'hurt', 'give', 'take']) trial.poke({ do: how, attribute: 'suit', amount: 0.4 });
      expect(trial.named('attributeChanged')).toEqual([]);
      trial.poke({ do: 'hurt', attribute: 'suit', amount: 2.5 });
      trial.poke({ do: 'heal', attribute: 'suit', amount: 2.5 });
      expect(trial.named('attributeChanged').map(({ data }) => [data['asked'], data['to']])).toEqual([
        [-3, 4],
        [3, 7],
      ]);
    }
  });

  it('does not save up refill while it is full', () => {
    const trial = Trial.of({ attributes: [pool('suit', { whole: true, refill: { rate: 4 } })] });
    trial.run(10);
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 10 });
    expect(trial.value('suit')).toBe(90);
  });

  it('follows a maximum that is another attribute', () => {
    const trial = Trial.of({ attributes: [pool('oxygen', { max: 'lungCapacity' }), stat('lungCapacity', 90)] });
    trial.poke({ do: 'set', attribute: 'lungCapacity', value: 60 });
    expect(trial.value('oxygen')).toBe(60);
    trial.poke({ do: 'heal', attribute: 'oxygen', amount: 50 });
    expect(trial.value('oxygen')).toBe(60);
  });

  it('of whole numbers stays whole also under a broken maximum', () => {
    const trial = Trial.of({ attributes: [pool('suit', { max: 'rating', whole: true }), stat('rating', 28.8)] });
    expect(trial.value('suit')).toBe(28);
    trial.poke({ do: 'set', attribute: 'rating', value: 20.4 });
    expect(attributesTable.in(trial.world).cells.suit[0]).toBe(20);
  });

  it('is not turned round by a negative amount', () => {
    const trial = Trial.of({ attributes: [pool('suit', { start: 50 })] });
    trial.poke({ do: 'hurt', attribute: 'suit', amount: -20 });
    expect(trial.value('suit')).toBe(50);
  });

  it('keeps its bounds whatever is done to it', () => {
    const deed = fc.record({ do: fc.constantFrom('hurt', 'heal', 'set', 'wait'), amount: fc.double({ min: -500, max: 500, noNaN: true }) });
    fc.assert(
      fc.property(fc.array(deed, { maxLength: 30 }), fc.boolean(), (deeds, whole) => {
        const trial = Trial.of({
          attributes: [
            pool('suit', { max: 'rating', min: 5, whole, refill: { rate: 7, pause: '100ms' } }),
            stat('rating', 80, { min: 10 }),
          ],
        });
        for (const { do: what, amount } of deeds) {
          if (what === 'wait') trial.run(0.3);
          else if (what === 'set') trial.poke({ do: 'set', attribute: 'rating', value: amount });
          else trial.poke({ do: what, attribute: 'suit', amount });
          const [suit, rating] = [trial.value('suit'), trial.value('rating')];
          expect(suit).toBeGreaterThanOrEqual(5);
          const most = attributesTable.in(trial.world).cells.rating[0];
          expect(rating).toBeCloseTo(most, 1);
          expect(attributesTable.in(trial.world).cells.suit[0]).toBeLessThanOrEqual(Math.max(5, most));
          expect(!whole || Number.isInteger(suit)).toBeTrue();
        }
      }),
      { numRuns: 40 },
    );
  });
});

describe('A counter', () => {
  it('counts whole things from 0 and never goes below', () => {
    const trial = Trial.of({ attributes: [counter('scrip')] });
    trial.poke({ do: 'give', attribute: 'scrip', amount: 7 });
    trial.poke({ do: 'take', attribute: 'scrip', amount: 10 });
    expect(trial.value('scrip')).toBe(0);
    expect(trial.named('attributeChanged')[1].data['lost']).toBe(-3);
  });
});

describe('Mistakes in attributes', () => {
  const problemsOf = (attributes: unknown[]) =>
    readRuleset(rulesetWith({ attributes })).problems.map(({ path, message }) => `${path} ${message}`);

  it('are a start beyond a bound, also a linked one', () => {
    expect(problemsOf([pool('suit', { start: 120 })])).toEqual(['/attributes/0/start The start 120 is above the maximum 100.']);
    expect(problemsOf([pool('suit', { start: 120, max: 'rating' }), stat('rating', 90)])).toEqual([
      '/attributes/0/start The start 120 is above the maximum 90.',
    ]);
    expect(problemsOf([pool('suit', { start: 1, min: 5 })])).toEqual(['/attributes/0/start The start 1 is below the minimum 5.']);
  });

  it('are a minimum above the maximum and a broken start of a whole number', () => {
    expect(problemsOf([pool('suit', { min: 200 })])).toEqual(['/attributes/0/min The minimum 200 is above the maximum 100.']);
    expect(problemsOf([pool('suit', { start: 1.5, whole: true })])[0]).toContain('is a whole number');
  });

  it('are circles, named with all who are in them', () => {
    const problems = problemsOf([stat('a', 1, { max: 'b' }), stat('b', 1, { max: 'c * 2' }), stat('c', 'a + 1')]);
    expect(problems.length).toBe(1);
    expect(problems[0]).toContain('a needs b needs c needs a');
  });

  it('are circles of starts, also where nobody carries them', () => {
    const attributes = [stat('a', 'b + 1'), stat('b', 'a')];
    const { problems } = readRuleset({ ...rulesetWith({ attributes }), actors: [] });
    expect(problems.map((p) => p.path)).toEqual(['/attributes/0/start']);
    expect(problems[0].message).toContain('a needs b needs a');
  });

  it('are a stat that refills', () => {
    expect(problemsOf([stat('finSpeed', 120, { refill: { rate: 1 } })])[0]).toContain('A stat does not refill');
  });
});
