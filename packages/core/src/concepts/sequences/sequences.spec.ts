import { checkAction, compileRuleset, readRuleset, World } from '../../index.js';
import { counter, join, pool, rulesetWith, Trial } from '../../testing/rulesets.js';
import { waitsTable } from './tables.js';

const give = (attribute: string, amount: unknown = 1) => ({ do: 'give', attribute, amount });
const COUNTERS = ['a', 'b', 'c'].map((id) => counter(id));
const parts = (then: unknown[], more: Record<string, unknown> = {}) => ({
  attributes: [...COUNTERS, pool('suit')],
  abilities: [{ id: 'go', label: 'Go', then }],
  ...more,
});
const counts = (trial: Trial) => ['a', 'b', 'c'].map((id) => trial.value(id));

describe('A list of actions that waits', () => {
  const THEN = [give('a'), { do: 'wait', for: '1s' }, give('b'), { do: 'wait', for: '500ms' }, give('c')];

  it('goes on after its time, to the tick', () => {
    const trial = Trial.of(parts(THEN));
    trial.use('go');
    expect(counts(trial)).toEqual([1, 0, 0]);
    trial.run(0.95);
    expect(counts(trial)).toEqual([1, 0, 0]);
    trial.run(0.05);
    expect(counts(trial)).toEqual([1, 1, 0]);
    trial.run(0.5);
    expect(counts(trial)).toEqual([1, 1, 1]);
    expect(waitsTable.in(trial.world).count).toBe(0);
  });

  it('knows what began it, also later', () => {
    const trial = Trial.of(parts(THEN));
    trial.use('go');
    trial.run(2);
    const used = trial.named('abilityUsed')[0].serial;
    expect(trial.named('attributeChanged').map((e) => e.cause)).toEqual([used, used, used]);
  });

  it('goes on after a restart, and after an edit elsewhere', () => {
    const trial = Trial.of(parts(THEN));
    trial.use('go');
    trial.world = World.restore(trial.rules, trial.world.snapshot());
    const edited = compileRuleset(
      rulesetWith({ ...parts(THEN), abilities: [{ id: 'new', label: 'New' }, ...(parts(THEN).abilities as unknown[])] }),
    );
    trial.world = trial.world.adopt(edited);
    trial.run(1);
    expect(counts(trial)).toEqual([1, 1, 0]);
  });

  it('stops where what was left of it is edited away, or its owner goes', () => {
    const edited = Trial.of(parts(THEN));
    edited.use('go');
    edited.world = edited.world.adopt(compileRuleset(rulesetWith(parts([give('a')]))));
    edited.run(2);
    expect(counts(edited)).toEqual([1, 0, 0]);
    const gone = Trial.of(parts(THEN));
    gone.use('go');
    gone.step({ kind: 'leave', args: { seat: 'north' } });
    expect(waitsTable.in(gone.world).count).toBe(0);
    gone.step(join('north'));
    gone.run(2);
    expect(counts(gone)).toEqual([0, 0, 0]);
  });
});

describe('A list that branches', () => {
  it('takes one side, waits in it, and then goes on', () => {
    const when = { do: 'when', if: 'suit > 50', then: [{ do: 'wait', for: '1s' }, give('a')], else: [give('b')] };
    const trial = Trial.of(parts([when, give('c')]));
    trial.use('go');
    expect(counts(trial)).toEqual([0, 0, 0]);
    trial.run(1);
    expect(counts(trial)).toEqual([1, 0, 1]);
    trial.poke({ do: 'set', attribute: 'suit', value: 10 });
    trial.use('go');
    expect(counts(trial)).toEqual([1, 1, 2]);
  });

  it('picks by weight, the same for the same seed', () => {
    const pick = {
      do: 'pick',
      among: [
        { weight: 3, then: [give('a')] },
        { weight: 1, then: [give('b')] },
        { weight: 0, then: [give('c')] },
      ],
    };
    const of = (seed: number) => {
      const trial = new Trial(Trial.of(parts([pick])).rules, [join('north')], seed);
      for (let i = 0; i < 400; i++) trial.use('go');
      return counts(trial);
    };
    const [a, b, c] = of(1);
    expect([a + b, c]).toEqual([400, 0]);
    expect(a).toBeGreaterThan(250);
    expect(b).toBeGreaterThan(60);
    expect(of(1)).toEqual([a, b, c]);
    expect(of(2)).not.toEqual([a, b, c]);
  });

  it('goes on where nothing can be picked', () => {
    const trial = Trial.of(parts([{ do: 'pick', among: [{ weight: 'suit - 100', then: [give('a')] }] }, give('c')]));
    trial.use('go');
    expect(counts(trial)).toEqual([0, 0, 1]);
  });

  it('is checked inside', () => {
    const then = [
      { do: 'when', if: 'suit >', then: [{ do: 'pick', among: [{ weight: 1, then: [give('siut')] }] }] },
      { do: 'wait', for: 'soon' },
    ];
    const paths = readRuleset(rulesetWith(parts(then))).problems.map((p) => p.path);
    expect(paths).toContain('/abilities/0/then/0/if');
    expect(paths).toContain('/abilities/0/then/0/then/0/among/0/then/0/attribute');
    expect(paths).toContain('/abilities/0/then/1/for');
  });

  it('from outside can’t wait', () => {
    const trial = Trial.of(parts([]));
    expect(checkAction(trial.rules, { do: 'when', if: 'true', then: [{ do: 'wait', for: '1s' }] }).problems[0].message).toContain(
      'can’t wait',
    );
    expect(checkAction(trial.rules, { do: 'when', if: 'suit > 5', then: [give('a')] }).problems).toEqual([]);
  });
});
