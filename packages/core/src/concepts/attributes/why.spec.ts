import { compileRuleset, History, why, whyAll } from '../../index.js';
import { causesOf } from './why.js';
import { input, join, pool, rulesetWith, stat, Trial } from '../../testing/rulesets.js';

const parts = {
  attributes: [stat('finSpeed', 120, { max: 600 }), pool('suit', { max: 'rating', refill: { rate: 4, pause: '3s' } }), stat('rating', 90)],
  effects: [
    { id: 'slipstream', label: 'Slipstream', lasts: '6s', modifiers: [{ attribute: 'finSpeed', operation: 'percent', amount: 40 }] },
    {
      id: 'silt',
      label: 'Silt',
      lasts: '3s',
      stacking: 'refresh',
      most: 2,
      modifiers: [{ attribute: 'finSpeed', operation: 'times', amount: 0.5 }],
    },
    {
      id: 'belt',
      label: 'Belt',
      lifetime: 'lasting',
      stacking: 'strongest',
      modifiers: [{ attribute: 'finSpeed', operation: 'add', amount: 'suit', live: true }],
    },
    {
      id: 'tow',
      label: 'Tow',
      lasts: '2s',
      modifiers: [
        { attribute: 'finSpeed', operation: 'set', amount: 700 },
        { attribute: 'finSpeed', operation: 'atMost', amount: 650 },
      ],
    },
  ],
  abilities: [{ id: 'dash', label: 'Dash', then: [{ do: 'apply', effect: 'slipstream' }] }],
};

describe('Why a value is what it is', () => {
  it('is a line with today’s numbers and every modifier with its effect, source, stacks and time left', () => {
    const trial = new Trial(Trial.of(parts).rules, [join('north'), join('south')]);
    trial.poke({ do: 'apply', effect: 'slipstream' });
    for (let i = 0; i < 2; i++)
      trial.step({ kind: 'poke', args: { seat: 'north', from: 'south', action: { do: 'apply', effect: 'silt' } } });
    const answer = why(trial.world, trial.actor(), 'finSpeed')!;
    expect(answer.line).toBe('clamp(((120 + 0) × (1 + 0.4) × 0.25), 0, 600) = 42');
    expect([answer.value, answer.base, answer.low, answer.high, answer.highText]).toEqual([42, 120, 0, 600, '600']);
    expect(answer.modifiers).toEqual([
      {
        operation: 'percent',
        amount: 40,
        counts: 40,
        stacks: 1,
        live: false,
        muted: false,
        effect: 'slipstream',
        label: 'Slipstream',
        source: '',
        left: 5.9,
      },
      {
        operation: 'times',
        amount: 0.5,
        counts: 0.25,
        stacks: 2,
        live: false,
        muted: false,
        effect: 'silt',
        label: 'Silt',
        source: 'south',
        left: 3,
      },
    ]);
  });

  it('tells what is set, what holds, what bounds, and what waits for a stronger one', () => {
    const trial = Trial.of(parts);
    for (const effect of ['tow', 'belt', 'belt']) trial.poke({ do: 'apply', effect });
    const answer = why(trial.world, trial.actor(), 'finSpeed')!;
    expect(answer.line).toBe('clamp(set 700, at most 650, 0, 600) = 600');
    expect(answer.before).toBe(650);
    expect(answer.modifiers.map((m) => [m.label, m.live, m.muted, m.left])).toEqual([
      ['Belt', true, false, undefined],
      ['Belt', true, true, undefined],
      ['Tow', false, false, 1.9],
      ['Tow', false, false, 1.9],
    ]);
  });

  it('of a pool tells its bounds, its refill and its rest', () => {
    const trial = Trial.of(parts);
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 50 });
    const answer = why(trial.world, trial.actor(), 'suit')!;
    expect(answer.line).toBe('clamp(40, 0, 90) = 40');
    expect([answer.rate, answer.rests, answer.highText]).toEqual([4, 3, 'rating']);
    expect(whyAll(trial.world, trial.actor()).map((each) => each.attribute)).toEqual(['finSpeed', 'suit', 'rating']);
    expect(why(trial.world, trial.actor(), 'nothing')).toBeUndefined();
    expect(why(trial.world, 0, 'suit')).toBeUndefined();
  });

  it('always has the value that the line ends with', () => {
    const trial = Trial.of(parts);
    for (const effect of ['slipstream', 'silt', 'belt', 'slipstream', 'silt', 'tow', 'silt']) {
      trial.poke({ do: 'apply', effect });
      const { line, value, before, low, high } = why(trial.world, trial.actor(), 'finSpeed')!;
      expect(value).toBeCloseTo(Math.min(Math.max(before, low), high!), 3);
      expect(line.endsWith(`= ${Math.round(value * 1e4) / 1e4}`)).toBeTrue();
    }
  });
});

describe('The history of a value', () => {
  it('leads each change back to the input that began it, also when time has passed', () => {
    const trial = Trial.of(parts);
    const history = new History();
    const step = (...commands: Parameters<Trial['step']>) => history.note(trial.rules, trial.step(...commands));
    step(input('north', { do: 'use', ability: 'dash' }));
    for (let i = 0; i < 121; i++) step();
    const causes = causesOf(history, trial.rules, trial.actor(), 'finSpeed');
    expect(causes.map((chain) => chain.map((link) => link.text))).toEqual([
      ['Slipstream runs out on north', 'Slipstream begins on north, for 6 s', 'north uses dash', 'north asks: use dash'],
      ['Slipstream begins on north, for 6 s', 'north uses dash', 'north asks: use dash'],
    ]);
  });

  it('remembers what happened before a renaming', () => {
    const trial = Trial.of(parts);
    const history = new History();
    history.note(trial.rules, trial.poke({ do: 'hurt', attribute: 'suit', amount: 10 }));
    const attributes = parts.attributes.map((each) => (each.id === 'suit' ? { ...each, id: 'hull', formerly: ['suit'] } : each));
    const renamed = compileRuleset(rulesetWith({ ...parts, attributes, effects: [], abilities: [] }));
    expect(causesOf(history, renamed, trial.actor(), 'hull').length).toBe(1);
  });

  it('tells of changes of a pool, and of nobody else’s', () => {
    const trial = new Trial(Trial.of(parts).rules, [join('north'), join('south')]);
    const history = new History();
    history.note(trial.rules, trial.poke({ do: 'hurt', attribute: 'suit', amount: 10 }));
    history.note(trial.rules, trial.poke({ do: 'hurt', attribute: 'suit', amount: 20 }, 'south'));
    expect(causesOf(history, trial.rules, trial.actor('north'), 'suit').map((c) => c.map((link) => link.text))).toEqual([
      ['north’s suit 90 → 80', 'poke: hurt suit 10 on north'],
    ]);
  });

  it('forgets the oldest', () => {
    const trial = Trial.of(parts);
    const history = new History(5);
    for (let i = 0; i < 20; i++) history.note(trial.rules, trial.poke({ do: 'hurt', attribute: 'suit', amount: 1 }));
    expect(causesOf(history, trial.rules, trial.actor(), 'suit', 9).length).toBeLessThanOrEqual(3);
  });
});
