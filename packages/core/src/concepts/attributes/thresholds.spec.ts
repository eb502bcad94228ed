import * as fc from 'fast-check';
import { readRuleset } from '../../index.js';
import { counter, pool, rulesetWith, stat, Trial } from '../../testing/rulesets.js';

const give = (attribute: string) => [{ do: 'give', attribute, amount: 1 }];
const counted = (threshold: Record<string, unknown>, more: Record<string, unknown> = {}) => [
  pool('oxygen', { thresholds: [{ id: 't', enter: give('entered'), leave: give('left'), ...threshold }], ...more }),
  counter('entered'),
  counter('left'),
];
const crossings = (trial: Trial) => [trial.value('entered'), trial.value('left')];

describe('A threshold', () => {
  it('at the end is entered once, and left beyond its margin', () => {
    const trial = Trial.of({ attributes: counted({ end: 'empty', margin: 20 }) });
    trial.poke({ do: 'hurt', attribute: 'oxygen', amount: 100 });
    expect(crossings(trial)).toEqual([1, 0]);
    for (const amount of [5, 15]) trial.poke({ do: 'heal', attribute: 'oxygen', amount });
    expect(trial.value('oxygen')).toBe(20);
    expect(crossings(trial)).toEqual([1, 0]);
    trial.poke({ do: 'heal', attribute: 'oxygen', amount: 1 });
    expect(crossings(trial)).toEqual([1, 1]);
    expect(trial.named('thresholdLeft')[0].data).toEqual({ attribute: 'oxygen', threshold: 't', value: 21 });
  });

  it('of a range counts its ends in, and may be entered from both sides', () => {
    const trial = Trial.of({ attributes: counted({ from: 40, to: 60 }) });
    for (const value of [60, 61, 40, 39.9, 50]) trial.poke({ do: 'set', attribute: 'oxygen', value });
    expect(crossings(trial)).toEqual([3, 2]);
  });

  it('may have edges that move', () => {
    const trial = Trial.of({ attributes: [...counted({ to: '0.5 * lungs' }, { max: 'lungs' }), stat('lungs', 100)] });
    trial.poke({ do: 'set', attribute: 'oxygen', value: 60 });
    expect(crossings(trial)).toEqual([0, 0]);
    trial.poke({ do: 'set', attribute: 'lungs', value: 140 });
    expect(crossings(trial)).toEqual([1, 0]);
  });

  it('at the full end is entered by whoever starts there', () => {
    const trial = Trial.of({ attributes: counted({ end: 'full' }) });
    expect(crossings(trial)).toEqual([1, 0]);
  });

  it('at the end of a pool of whole numbers holds at the whole end', () => {
    const trial = Trial.of({ attributes: counted({ end: 'full' }, { max: 50.5, whole: true }) });
    expect([trial.value('oxygen'), ...crossings(trial)]).toEqual([50, 1, 0]);
  });

  it('stands on a stat as well', () => {
    const trial = Trial.of({
      attributes: [stat('finSpeed', 120, { thresholds: [{ id: 'slow', to: 60, enter: give('entered') }] }), counter('entered')],
      effects: [{ id: 'silt', label: 'Silt', lasts: '1s', modifiers: [{ attribute: 'finSpeed', operation: 'times', amount: 0.5 }] }],
    });
    trial.poke({ do: 'apply', effect: 'silt' });
    expect(trial.value('entered')).toBe(1);
  });

  it('never flickers: enter and leave alternate, whatever is done', () => {
    const deed = fc.record({ amount: fc.integer({ min: -60, max: 60 }), wait: fc.integer({ min: 0, max: 10 }) });
    const places = fc.constantFrom<Record<string, unknown>>(
      { end: 'empty' },
      { end: 'full' },
      { to: 30 },
      { from: 40, to: 60 },
      { from: 'oxygenMax' },
    );
    fc.assert(
      fc.property(fc.array(deed, { maxLength: 40 }), fc.integer({ min: 0, max: 25 }), places, (deeds, margin, place) => {
        const trial = Trial.of({
          attributes: [...counted({ ...place, margin }, { start: 50, refill: { rate: 3 } }), stat('oxygenMax', 70)],
        });
        for (const { amount, wait } of deeds) {
          trial.poke({ do: amount < 0 ? 'hurt' : 'heal', attribute: 'oxygen', amount: Math.abs(amount) });
          trial.run(wait / 20);
        }
        const sides = trial.events.filter((e) => e.name.startsWith('threshold')).map((e) => e.name);
        sides.forEach((side, i) => expect(side).toBe(i % 2 === 0 ? 'thresholdEntered' : 'thresholdLeft'));
        expect(crossings(trial)).toEqual([Math.ceil(sides.length / 2), Math.floor(sides.length / 2)]);
      }),
      { numRuns: 60 },
    );
  });

  it('keeps its side when others are put before it, and when its attribute is renamed', () => {
    const trial = Trial.of({ attributes: counted({ end: 'empty' }) });
    trial.poke({ do: 'hurt', attribute: 'oxygen', amount: 100 });
    const [oxygen, ...others] = counted({ end: 'empty' });
    const thresholds = [{ id: 'low', to: 30 }, ...(oxygen as unknown as { thresholds: unknown[] }).thresholds];
    const attributes = [...others, { ...oxygen, id: 'air', formerly: ['oxygen'], thresholds }];
    const { rules, problems } = readRuleset(rulesetWith({ attributes }));
    expect(problems).toEqual([]);
    trial.world = trial.world.adopt(rules!);
    trial.step();
    expect(crossings(trial)).toEqual([1, 0]);
    expect(trial.value('air')).toBe(0);
  });

  it('is refused where it says nothing, both, or the wrong way round', () => {
    const problems = (threshold: Record<string, unknown>, more = {}) =>
      readRuleset(rulesetWith({ attributes: [pool('oxygen', { thresholds: [{ id: 't', ...threshold }], ...more })] })).problems.map(
        (p) => p.path,
      );
    expect(problems({})).toEqual(['/attributes/0/thresholds/0']);
    expect(problems({ end: 'empty', to: 3 })).toEqual(['/attributes/0/thresholds/0']);
    expect(problems({ from: 9, to: 3 })).toEqual(['/attributes/0/thresholds/0/from']);
    expect(problems({ end: 'full' }, { max: undefined })).toEqual(['/attributes/0/thresholds/0/end']);
    expect(problems({ to: 3, margin: -1 })).toEqual(['/attributes/0/thresholds/0/margin']);
  });
});
