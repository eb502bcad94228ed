import { CheckSession, checksOf, compileRuleset, coverageOf, Footprint } from '../../index.js';
import { counter, pool, rulesetWith } from '../../testing/rulesets.js';

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
const coverage = (...checks: Record<string, unknown>[]) => coverageIn(RULESET, ...checks);
const coverageIn = (document: Record<string, unknown>, ...checks: Record<string, unknown>[]) => {
  const rules = compileRuleset({
    ...rulesetWith(document),
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
    expect(entries['effects/chill']).toEqual({ checks: [], actions: 1, missing: ['periodic/then/0'], branches: 0, untaken: [] });
  });

  it('is what happened, which actions were done, and which branches were taken', () => {
    const { chapters, entries } = coverage(
      { stages: [{ when: [{ on: 'ada', action: { do: 'apply', effect: 'chill' } }, { pass: '2s' }] }] },
      { stages: [{ then: [{ value: 'air', amount: 100 }] }] },
    );
    const of = (title: string) => chapters.find((one) => one.title === title)!;
    expect([of('Effects').covered, of('Effects').uncovered]).toEqual([1, ['glow']]);
    expect([of('Stats').covered, of('Statuses').covered, of('Actors').covered, of('Reactions').covered]).toEqual([2, 1, 1, 1]);
    expect(entries['effects/chill']).toEqual({ checks: ['check0'], actions: 1, missing: [], branches: 0, untaken: [] });
    expect(entries['attributes/air'].checks).toEqual(['check1']);
    expect(entries['actors/diver'].checks).toEqual(['check0', 'check1']);
    expect(entries['reactions/sorted']).toEqual({ checks: ['check0'], actions: 3, missing: ['then/0/then/0'], branches: 0, untaken: [] });
  });

  it('is which edges were crossed, which rows drawn, which nodes learned, and where a condition did not hold', () => {
    const low = { id: 'low', from: 0, to: 50, enter: [], leave: [] };
    const document = {
      attributes: [pool('suit', { thresholds: [low] }), counter('coin')],
      loot: [
        {
          id: 'chest',
          label: 'Chest',
          always: [{ id: 'lid', gives: 'coin' }],
          entries: [
            { id: 'gold', weight: 1, gives: 'coin' },
            { id: 'lead', weight: 0, gives: 'coin' },
          ],
        },
      ],
      trees: [
        {
          id: 'craft',
          label: 'Craft',
          points: 3,
          nodes: [
            { id: 'knots', label: 'Knots' },
            { id: 'sails', label: 'Sails' },
          ],
        },
      ],
      reactions: [
        {
          id: 'hurting',
          label: 'Hurting',
          on: { on: 'attributeChanged', attribute: 'suit' },
          then: [{ do: 'when', if: 'suit > 1', then: [HURT] }],
        },
      ],
    };
    const { entries } = coverageIn(document, {
      stages: [
        {
          when: [
            { on: 'ada', action: { do: 'hurt', attribute: 'suit', amount: 99 } },
            { on: 'ada', action: { do: 'drop', table: 'chest' } },
            { seat: 'ada', input: { do: 'learn', tree: 'craft', node: 'knots' } },
            { pass: '1s' },
          ],
        },
      ],
    });
    expect(entries['attributes/suit']).toEqual(jasmine.objectContaining({ branches: 2, untaken: ['thresholds/low/leave'] }));
    expect(entries['loot/chest']).toEqual(jasmine.objectContaining({ branches: 3, untaken: ['rows/lead'] }));
    expect(entries['trees/craft']).toEqual(jasmine.objectContaining({ branches: 2, untaken: ['nodes/sails'] }));
    expect(entries['reactions/hurting']).toEqual(jasmine.objectContaining({ branches: 1, untaken: [], missing: ['then/0/then/0'] }));
  });
});
