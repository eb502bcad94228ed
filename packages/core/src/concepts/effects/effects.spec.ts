import * as fc from 'fast-check';
import { readRuleset } from '../../index.js';
import { pool, rulesetWith, stat, Trial } from '../../testing/rulesets.js';
import { attributesTable, modifiersTable } from '../attributes/tables.js';
import { effectsTable } from './tables.js';

const SLIPSTREAM = {
  id: 'slipstream',
  label: 'Slipstream',
  lasts: '6s',
  modifiers: [{ attribute: 'finSpeed', operation: 'percent', amount: 40 }],
};
const SILT = {
  id: 'silt',
  label: 'Silt',
  lasts: '3s',
  grants: ['silted'],
  modifiers: [{ attribute: 'finSpeed', operation: 'times', amount: 0.5 }],
};
const FINS = { id: 'longFins', label: 'Long fins', lasts: '4s', modifiers: [{ attribute: 'finSpeed', operation: 'add', amount: 20 }] };
const ODD = {
  id: 'odd',
  label: 'Odd',
  lasts: '2s',
  modifiers: [
    { attribute: 'finSpeed', operation: 'percent', amount: 0.1 },
    { attribute: 'finSpeed', operation: 'times', amount: 1.1 },
  ],
};

const parts = {
  attributes: [stat('finSpeed', 120, { max: 600 })],
  statuses: [{ id: 'silted', label: 'Silted' }],
  effects: [SLIPSTREAM, SILT, FINS, ODD],
};
const apply = (trial: Trial, effect: string) => trial.poke({ do: 'apply', effect });

describe('An effect', () => {
  it('modifies while it lasts and ends to the tick', () => {
    const trial = Trial.of(parts);
    apply(trial, 'slipstream');
    expect(trial.value('finSpeed')).toBe(168);
    trial.run(5.95);
    expect(trial.value('finSpeed')).toBe(168);
    trial.run(0.05);
    expect(trial.value('finSpeed')).toBe(120);
  });

  it('counts twice when two are on, each on its own clock', () => {
    const trial = Trial.of(parts);
    apply(trial, 'slipstream');
    trial.run(1.95);
    apply(trial, 'slipstream');
    expect(trial.value('finSpeed')).toBe(216);
    trial.run(4);
    expect(trial.value('finSpeed')).toBe(168);
    trial.run(2);
    expect(trial.value('finSpeed')).toBe(120);
    expect(trial.named('effectEnded').length).toBe(2);
  });

  it('is one of many: (base + add) x (1 + percents) x times', () => {
    const trial = Trial.of(parts);
    for (const id of ['slipstream', 'slipstream', 'silt', 'longFins']) apply(trial, id);
    expect(trial.value('finSpeed')).toBe((120 + 20) * 1.8 * 0.5);
  });

  it('grants its statuses by counting: of two grants one ends, the status stays', () => {
    const trial = Trial.of(parts);
    apply(trial, 'silt');
    trial.run(1);
    apply(trial, 'silt');
    trial.run(2.5);
    expect(trial.named('statusLost').length).toBe(0);
    trial.run(1);
    expect(trial.named('statusGained').length).toBe(1);
    expect(trial.named('statusLost').length).toBe(1);
  });

  it('can be ended early, with the reason', () => {
    const trial = Trial.of(parts);
    apply(trial, 'slipstream');
    trial.poke({ do: 'end', effect: 'slipstream' });
    expect(trial.value('finSpeed')).toBe(120);
    expect(trial.named('effectEnded')[0].data).toEqual({ effect: 'slipstream', reason: 'removed' });
    trial.run(7);
    expect(trial.named('effectEnded').length).toBe(1);
  });

  it('gives back exactly the base, in whatever order effects come and go', () => {
    const deed = fc.record({
      effect: fc.constantFrom('slipstream', 'silt', 'longFins', 'odd'),
      end: fc.boolean(),
      wait: fc.integer({ min: 0, max: 60 }),
    });
    fc.assert(
      fc.property(fc.array(deed, { maxLength: 25 }), (deeds) => {
        const trial = Trial.of(parts);
        for (const { effect, end, wait } of deeds) {
          trial.poke({ do: end ? 'end' : 'apply', effect });
          trial.run(wait / 20);
        }
        trial.run(6);
        expect(trial.value('finSpeed')).toBe(120);
        expect(modifiersTable.in(trial.world).count).toBe(0);
        expect(effectsTable.in(trial.world).count).toBe(0);
      }),
      { numRuns: 40 },
    );
  });

  it('says the same whatever came before: what is on decides', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray(['slipstream', 'silt', 'longFins', 'odd', 'slipstream', 'odd']), (order) => {
        const one = Trial.of(parts);
        order.forEach((effect) => apply(one, effect));
        const other = Trial.of(parts);
        [...order].reverse().forEach((effect) => apply(other, effect));
        expect(attributesTable.in(one.world).cells.finSpeed[0]).toBe(attributesTable.in(other.world).cells.finSpeed[0]);
      }),
      { numRuns: 30 },
    );
  });

  it('takes its amounts when it starts, from whom it comes', () => {
    const trial = Trial.of({
      attributes: [stat('finSpeed', 120), stat('push', 30)],
      effects: [{ id: 'tow', label: 'Tow', lasts: '2s', modifiers: [{ attribute: 'finSpeed', operation: 'add', amount: 'push * 2' }] }],
    });
    apply(trial, 'tow');
    trial.poke({ do: 'set', attribute: 'push', value: 0 });
    expect(trial.value('finSpeed')).toBe(180);
  });

  it('does not modify what is drained', () => {
    const reading = readRuleset(
      rulesetWith({
        attributes: [pool('suit')],
        effects: [{ id: 'e', label: 'E', lasts: '1s', modifiers: [{ attribute: 'suit', operation: 'add', amount: 1 }] }],
      }),
    );
    expect(reading.problems[0].path).toBe('/effects/0/modifiers/0/attribute');
    expect(reading.problems[0].message).toContain('modifiers are for stats');
  });
});
