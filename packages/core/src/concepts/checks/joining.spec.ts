import { type CheckResult, huntsOf, readRuleset, runChecks, Search } from '../../index.js';
import { atOnce } from '../../ruleset/parts.js';
import { pool, rulesetWith } from '../../testing/rulesets.js';

const RULES = rulesetWith({
  attributes: [pool('health')],
});
const ada = { name: 'ada' };
const late = { name: 'bo', later: true, with: [{ attribute: 'health', value: 40 }] };
const hurts = (on: string) => ({ on, action: { do: 'hurt', attribute: 'health', amount: 10 } });
const run = (check: object): CheckResult => {
  const { rules, problems } = readRuleset({ ...RULES, checks: [{ id: 'one', label: 'One', given: [ada, late], ...check }] });
  expect(problems).toEqual([]);
  return atOnce(runChecks(rules!))[0];
};
const said = ({ ok, outcomes, mistakes }: CheckResult) => [
  ok,
  ...mistakes.map(({ path, message }) => `${path}: ${message}`),
  ...outcomes.flatMap(({ failure }) => failure?.says ?? []),
];

describe('Who comes later', () => {
  it('is not there before a step has them come in, and then as they are given', () => {
    const stages = [
      { when: [{ pass: '1s' }], then: [{ of: 'ada', value: 'health', amount: 100 }] },
      { when: [{ joins: 'bo' }], then: [{ of: 'bo', value: 'health', amount: 40 }] },
      {
        when: [hurts('bo')],
        then: [
          { of: 'bo', value: 'health', amount: 30 },
          { value: 'health', how: 'atLeast', amount: 30 },
        ],
      },
    ];
    expect(said(run({ stages }))).toEqual([true]);
    const early = run({ stages: [{ then: [{ of: 'bo', value: 'health', amount: 40 }] }, { when: [{ joins: 'bo' }], then: [] }] });
    expect(said(early)).toEqual([false, 'bo is not there yet.']);
  });

  it('is asked nothing before they come, of what always holds', () => {
    const always = [{ of: 'bo', value: 'health', how: 'atLeast', amount: 40 }];
    const joins = { when: [{ pass: '500ms' }, { joins: 'bo' }, { pass: '500ms' }] };
    expect(said(run({ stages: [joins], always }))).toEqual([true]);
    expect(said(run({ stages: [joins, { when: [hurts('bo')] }], always }))).toEqual([false, 'bo: health is 30, not at least 40.']);
  });

  it('comes back after a restart where they have been there, and comes in once', () => {
    const health = [{ of: 'ada', value: 'health', amount: 100 }];
    expect(
      said(
        run({
          stages: [
            { when: [{ restarts: true }, { pass: '1s' }], then: health },
            { when: [{ joins: 'bo' }, { joins: 'bo' }], then: [{ of: 'bo', value: 'health', amount: 40 }] },
          ],
        }),
      ),
    ).toEqual([true]);
    expect(said(run({ stages: [{ when: [{ joins: 'bo' }, { restarts: true }], then: [{ that: 'health > 0', of: 'bo' }] }] }))).toEqual([
      true,
    ]);
  });

  it('has to come, and nobody else does', () => {
    expect(said(run({ stages: [{ then: [{ of: 'ada', value: 'health', amount: 100 }] }] }))).toEqual([
      false,
      'given/1/later: bo comes later, and no step has them come in.',
    ]);
    expect(said(run({ given: [ada], stages: [{ when: [{ joins: 'ada' }], then: [] }] }))).toEqual([
      false,
      'stages/0/when/0/joins: ada is there from the beginning: say of them, where they are given, that they come later.',
    ]);
    const beyond = { ...late, with: [{ attribute: 'health', value: 400 }] };
    expect(said(run({ given: [ada, beyond], stages: [{ when: [{ joins: 'bo' }], then: [] }] }))).toEqual([
      false,
      'given/1/with/0/value: bo can’t have 400 health: it is at most 100.',
    ]);
    const { rules } = readRuleset({ ...RULES, hunts: [{ id: 'one', label: 'One', given: [late], may: [{ pass: '1s' }] }] });
    expect(new Search(rules!, huntsOf(rules!)[0]).mistakes).toEqual([
      { path: 'given/0/later', message: 'In a hunt everybody is there from the beginning: take this out.' },
    ]);
  });
});
