import { type CheckResult, readRuleset, runChecks } from '../../index.js';
import { atOnce } from '../../ruleset/parts.js';
import { counter, pool, rulesetWith, stat } from '../../testing/rulesets.js';

const PARTS = {
  attributes: [pool('suit', { max: 'rating', saved: true }), stat('rating', 100), counter('coins', { start: 10 })],
  teams: [{ id: 'red', label: 'Red', open: true }],
};

function run(check: Record<string, unknown>, parts: Record<string, unknown> = {}): CheckResult {
  const one = { id: 'one', label: 'One', given: [{ name: 'ada' }, { name: 'bo' }], ...check };
  const { rules, problems } = readRuleset(rulesetWith({ ...PARTS, ...parts, checks: [one] }));
  expect(problems).toEqual([]);
  return atOnce(runChecks(rules!))[0];
}
const failures = ({ outcomes }: CheckResult) => outcomes.flatMap(({ failure }) => failure?.says ?? []);
const gives = (on: string, amount: number) => ({ on, action: { do: 'give', attribute: 'coins', amount } });
const pays = { id: 'pays', label: 'Pays', on: { on: 'statusGained' }, then: [{ do: 'give', attribute: 'coins', amount: 3 }] };

describe('What always holds', () => {
  it('lets who has gone be gone', () => {
    const steps = [{ leaves: 'ada' }, { pass: '1s' }];
    expect(run({ stages: [{ when: steps }], always: [{ of: 'ada', value: 'coins', amount: 10 }] }).ok).toBeTrue();
    expect(failures(run({ stages: [{ when: steps }], always: [{ of: 'eve', value: 'coins', amount: 10 }] }))).toEqual([
      'Nobody here is called eve.',
    ]);
  });

  it('counts what is done from outside as neither made nor lost', () => {
    const stages = [
      { when: [gives('ada', 5), { pass: '0.2s' }, { leaves: 'ada' }, { pass: '0.2s' }, { returns: 'ada' }, { pass: '0.2s' }] },
    ];
    expect(run({ stages, always: [{ conserved: 'coins' }] }).ok).toBeTrue();
    expect(run({ stages: [...stages, { when: [{ restarts: true }, { pass: '1s' }] }], always: [{ conserved: 'coins' }] }).ok).toBeTrue();
  });

  it('tells a rule that makes something of no rule that is named', () => {
    const parts = { statuses: [{ id: 'keen', label: 'Keen' }], reactions: [pays] };
    const stages = [{ when: [{ on: 'bo', action: { do: 'grant', status: 'keen' } }, { pass: '0.1s' }] }];
    expect(failures(run({ stages, always: [{ conserved: 'coins' }] }, parts))).toEqual([
      'bo’s coins 10 → 13: 3 coins in by pays, which is no source of it.',
    ]);
    // As a sink it may take, not give.
    const sink = { conserved: 'coins', sinks: [{ reactions: 'pays' }] };
    expect(failures(run({ stages, always: [sink] }, parts)).length).toBe(1);
    expect(run({ stages, always: [{ conserved: 'coins', sources: [{ reactions: 'pays' }] }] }, parts).ok).toBeTrue();
    expect(run({ stages, always: [{ conserved: 'coins', of: 'ada' }] }, parts).ok).toBeTrue();
  });

  it('tells a value that moves by itself', () => {
    const drains = { attributes: [...PARTS.attributes.slice(1), pool('suit', { refill: { rate: -2 } })] };
    expect(failures(run({ stages: [{ when: [{ pass: '1s' }] }], always: [{ conserved: 'suit' }] }, drains))).toEqual([
      'ada’s suit went from 100 to 99.9, and nothing did that.',
    ]);
  });

  it('holds of any ruleset what concepts say of themselves', () => {
    const when = [
      { on: 'ada', action: { do: 'hurt', attribute: 'suit', amount: 500 } },
      { leaves: 'bo' },
      { pass: '1s' },
      { returns: 'bo' },
      { pass: '1s' },
    ];
    const names = ['bounds', 'wholeNumbers', 'leavableStates', 'legalTrees', 'questsOnce', 'achievementsOnce', 'copies', 'saves'];
    const { ok, outcomes } = run({ stages: [{ when }], always: names.map((invariant) => ({ invariant })) });
    expect(outcomes.flatMap(({ failure, path }) => (failure ? [`${path}: ${failure.says}`] : []))).toEqual([]);
    expect(ok).toBeTrue();
  });
});

describe('A player who comes back', () => {
  const tree = {
    id: 'craft',
    label: 'Craft',
    points: 1,
    respec: { how: 'free' },
    nodes: [{ id: 'thick', label: 'Thick', x: 0, y: 0, gives: { effect: 'thicker' } }],
  };
  const effects = [
    { id: 'thicker', label: 'Thicker', lifetime: 'lasting', modifiers: [{ attribute: 'rating', operation: 'add', amount: 50 }] },
  ];
  const learned = [
    { seat: 'ada', input: { do: 'learn', tree: 'craft', node: 'thick' } },
    { pass: '0.1s' },
    { on: 'ada', action: { do: 'heal', attribute: 'suit', amount: 500 } },
    { pass: '0.1s' },
  ];

  it('has all that what they learned has room for', () => {
    for (const again of [[{ leaves: 'ada' }, { pass: '0.1s' }, { returns: 'ada' }], [{ restarts: true }]]) {
      const stages = [
        { when: learned, then: [{ of: 'ada', value: 'suit', amount: 150 }] },
        { when: [...again, { pass: '0.1s' }], then: [{ of: 'ada', value: 'suit', amount: 150 }] },
      ];
      expect(failures(run({ stages }, { trees: [tree], effects }))).toEqual([]);
    }
  });

  it('has no more than there is room for without what was not kept', () => {
    const stages = [
      {
        when: [
          { on: 'ada', action: { do: 'apply', effect: 'thicker' } },
          ...learned.slice(2),
          { leaves: 'ada' },
          { pass: '0.1s' },
          { returns: 'ada' },
          { pass: '0.1s' },
        ],
        then: [{ of: 'ada', value: 'suit', amount: 100 }],
      },
    ];
    expect(failures(run({ stages, always: [{ invariant: 'saves' }] }, { trees: [tree], effects }))).toEqual([]);
  });
});
