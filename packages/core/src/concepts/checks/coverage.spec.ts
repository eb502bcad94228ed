import { CheckSession, checksOf, compileRuleset, coverageOf, Footprint } from '../../index.js';
import { pool, rulesetWith } from '../../testing/rulesets.js';

const HURT = { do: 'hurt', attribute: 'suit', amount: 5 };
const RULESET = rulesetWith({
  attributes: [pool('suit'), pool('air')],
  statuses: [{ id: 'cold', label: 'Cold' }],
  effects: [
    { id: 'chill', label: 'Chill', lasts: '2s', grants: ['cold'], periodic: { every: '1s', then: [HURT] } },
    { id: 'glow', label: 'Glow', lasts: '2s' },
  ],
  reactions: [
    {
      id: 'sorted',
      label: 'Sorted',
      on: { on: 'attributeChanged', attribute: 'suit' },
      then: [{ do: 'when', if: 'suit > 1000', then: [HURT], else: [{ do: 'grant', status: 'cold' }] }],
    },
  ],
});
const coverage = (...checks: Record<string, unknown>[]) => {
  const rules = compileRuleset({
    ...RULESET,
    checks: checks.map((check, i) => ({ id: `check${i}`, label: 'One', given: [{ name: 'ada' }], ...check })),
  });
  const session = new CheckSession(rules);
  return coverageOf(
    rules,
    new Map(
      checksOf(rules).map((check) => {
        const footprint = new Footprint();
        session.runNow(check, footprint);
        return [check, footprint] as const;
      }),
    ),
  );
};

describe('What checks have run', () => {
  it('is nothing without any', () => {
    const { chapters, entries } = coverage();
    expect(chapters.map(({ covered }) => covered)).toEqual(chapters.map(() => 0));
    expect(entries['effects/chill']).toEqual({ checks: [], actions: 1, missing: ['periodic/then/0'] });
  });

  it('is what happened, which actions were done, and which branches were taken', () => {
    const { chapters, entries } = coverage(
      { stages: [{ when: [{ on: 'ada', action: { do: 'apply', effect: 'chill' } }, { pass: '2s' }] }] },
      { stages: [{ then: [{ value: 'air', amount: 100 }] }] },
    );
    const of = (title: string) => chapters.find((one) => one.title === title)!;
    expect([of('Effects').covered, of('Effects').uncovered]).toEqual([1, ['glow']]);
    expect([of('Stats').covered, of('Statuses').covered, of('Actors').covered, of('Reactions').covered]).toEqual([2, 1, 1, 1]);
    expect(entries['effects/chill']).toEqual({ checks: ['check0'], actions: 1, missing: [] });
    expect(entries['attributes/air'].checks).toEqual(['check1']);
    expect(entries['actors/diver'].checks).toEqual(['check0', 'check1']);
    expect(entries['reactions/sorted']).toEqual({ checks: ['check0'], actions: 3, missing: ['then/0/then/0'] });
  });
});
