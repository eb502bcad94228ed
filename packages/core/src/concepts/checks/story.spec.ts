import { checkStory, compileRuleset } from '../../index.js';
import { pool, rulesetWith } from '../../testing/rulesets.js';

const SUIT = pool('suit', { start: 100, decimals: 0 });
const AIR = pool('air', { max: 90, refill: { rate: -2 } });
const DIVER = { id: 'diver', label: 'Diver', kind: 'player', attributes: [{ attribute: 'suit' }, { attribute: 'air' }] };
const EEL = { id: 'eel', label: 'Eel', kind: 'foe', attributes: [{ attribute: 'suit' }], abilities: ['bite'] };
const BITE = {
  id: 'bite',
  label: 'Bite',
  cooldown: '1s',
  target: { at: 'actor', range: 60 },
  onHit: [{ do: 'hurt', attribute: 'suit', amount: 9, to: 'target' }],
};
const storyOf = (check: Record<string, unknown>, row?: number) =>
  checkStory(
    compileRuleset(
      rulesetWith({ attributes: [SUIT, AIR], actors: [DIVER, EEL], abilities: [BITE], checks: [{ id: 'one', label: 'One', ...check }] }),
    ),
    'one',
    row,
  )!;
const GIVEN = [
  { name: 'ada', x: 100, y: 100 },
  { name: 'nip', actor: 'eel', x: 130, y: 100 },
];
const bitten = { on: 'nip', action: { do: 'use', ability: 'bite' } };

describe('The story of a check', () => {
  it('has the course of each value that is spoken of, and what happened', () => {
    const { evidence, result } = storyOf({
      given: GIVEN,
      stages: [{ when: [{ pass: '1s' }, bitten, { pass: '1s' }], then: [{ of: 'ada', value: 'suit', amount: 91 }] }],
      always: [{ of: 'ada', value: 'air', how: 'atMost', amount: 90 }],
    });
    expect(result.ok).toBeTrue();
    expect(evidence.series.map(({ label }) => label)).toEqual(['suit', 'air']);
    expect([evidence.seconds, evidence.series[0].values.length]).toEqual([2, 40]);
    expect([19, 20, 39].map((tick) => evidence.series[0].values[tick])).toEqual([100, 91, 91]);
    expect(evidence.series[1].values[0]).toBeCloseTo(89.9, 5);
    expect(evidence.moments.map(({ text }) => text)).toContain('nip: ada’s suit 100 → 91');
  });

  it('of a failure leads back to what began it, and names the rule', () => {
    const { chains, result } = storyOf({
      given: GIVEN,
      stages: [{ when: [bitten, { pass: '500ms' }], then: [{ of: 'ada', value: 'suit', amount: 100 }] }],
    });
    expect(result.outcomes[0].failure!.says).toBe('ada: suit is 91, not 100.');
    const { links, rule, drift } = chains['stages/0/then/0'];
    expect(links.map(({ text }) => text).slice(0, 2)).toEqual(['nip: ada’s suit 100 → 91', 'nip’s bite hits ada']);
    expect(links.at(-1)!.text).toContain('poke');
    expect(rule).toEqual({ chapter: 'abilities', id: 'bite', label: 'Bite' });
    expect(drift).toBeUndefined();
  });

  it('of a value that moved by itself says so', () => {
    const { chains } = storyOf({ given: [{ name: 'ada' }], stages: [{ when: [{ pass: '1s' }], then: [{ value: 'air', amount: 90 }] }] });
    expect(chains['stages/0/then/0']).toEqual({
      links: [],
      drift: 'air drains 2 a second.',
      rule: { chapter: 'attributes', id: 'air', label: 'air' },
    });
  });

  it('is that of the row that fails, or of the one that is asked for', () => {
    const check = {
      given: [{ name: 'ada', with: [{ attribute: 'suit', value: 'row.suit' }] }],
      stages: [{ then: [{ value: 'suit', amount: 'row.left' }] }],
      each: {
        columns: ['suit', 'left'],
        rows: [
          [50, 50],
          [40, 41],
        ],
      },
    };
    expect(storyOf(check).result.outcomes[0].says).toBe('40');
    expect(storyOf(check, 0).result.outcomes[0].says).toBe('50');
  });

  it('of a check that can’t be run has nothing to be seen', () => {
    const { evidence, result } = storyOf({ stages: [{ then: [{ value: 'nothing', amount: 1 }] }] });
    expect([evidence.series, result.mistakes.length]).toEqual([[], 1]);
    expect(checkStory(compileRuleset(rulesetWith()), 'none')).toBeUndefined();
  });
});
