import { compileRuleset, findingsOf, readRuleset } from '../../index.js';
import { FIGHT } from '../../testing/fights.js';
import { rulesetWith } from '../../testing/rulesets.js';

const FLASH = [{ do: 'flourish', text: 'Flash' }];
const rulesOf = (ability: Record<string, unknown>, more: Record<string, unknown> = {}) =>
  rulesetWith({
    ...FIGHT,
    states: [],
    ...more,
    abilities: [
      { id: 'torch', label: 'Torch', then: FLASH, ...(ability['deliver'] !== undefined && { onHit: FLASH }), ...ability },
      ...((more['abilities'] as unknown[]) ?? []),
    ],
  });
const found = (ability: Record<string, unknown>, more?: Record<string, unknown>) =>
  findingsOf(compileRuleset(rulesOf(ability, more))).filter(({ path }) => path.startsWith('/abilities/0'));
const shot = (deliver: Record<string, unknown>) => ({
  target: { at: 'direction', range: 400 },
  deliver: { by: 'projectile', speed: 200, ...deliver },
});
const groups = [{ id: 'tools', label: 'Tools', lasts: '1s' }];

/** [what, the ability, the rest] = kinds of findings, and what the first one says. */
const TABLE: readonly (readonly [string, Record<string, unknown>, Record<string, unknown>, readonly string[], RegExp])[] = [
  ['nobody has', {}, { actors: [{ id: 'diver', label: 'Diver', kind: 'player' }] }, ['unused'], /no kind of actor has it/],
  ['costs more than there can be', { costs: [{ attribute: 'stamina', amount: 120 }] }, {}, ['unaffordable'], /never gets above 100/],
  ['costs all there can be', { costs: [{ attribute: 'stamina', amount: 100 }] }, {}, [], /./],
  ['does not fly as far as it is aimed', shot({ lifetime: '1s' }), {}, ['shortFlight'], /over after 200/],
  ['flies just as far', shot({ lifetime: '2s' }), {}, [], /./],
  [
    'keeps its group waiting shorter than it casts',
    { groups: ['tools'], cast: { time: '1.8s', haste: 'handling' } },
    { groups, abilities: [{ id: 'knife', label: 'Knife', groups: ['tools'] }] },
    ['groupShorterThanCast'],
    /takes up to 3.6 s/,
  ],
  [
    'needs what never lasts as long as the fastest cast',
    { cast: { time: '4s', haste: 'handling' }, requires: [{ has: 'winded', throughout: true }] },
    { effects: [{ id: 'glow', label: 'Glow', lasts: '1.5s', grants: ['winded'] }] },
    ['castOutlastsStatus'],
    /no haste makes its cast shorter than 2 s/,
  ],
  [
    'needs what lasts long enough for the fastest cast',
    { cast: { time: '4s', haste: 'handling' }, requires: [{ has: 'winded', throughout: true }] },
    { effects: [{ id: 'glow', label: 'Glow', lasts: '2.5s', grants: ['winded'] }] },
    [],
    /./,
  ],
  [
    'hits nobody',
    { target: { at: 'point', range: 100 }, onHit: [{ do: 'hurt', attribute: 'suit', amount: 1 }] },
    {},
    ['hitsNobody'],
    /sends nothing there/,
  ],
  [
    'says more than its box holds',
    { tooltip: { text: 'Burns for {handling * 100} and a good deal more than that', width: 20, lines: 2 } },
    {},
    ['textTooLong'],
    /takes 3 lines of 20 characters/,
  ],
];

describe('A finding about an ability that', () => {
  for (const [what, ability, more, kinds, says] of TABLE)
    it(`${what}: ${kinds.join() || 'nothing'}`, () => {
      const findings = found(ability, more);
      expect(findings.map(({ kind }) => kind)).toEqual([...kinds]);
      expect(findings.slice(0, 1).filter(({ message }) => !says.test(message))).toEqual([]);
    });

  it('can be mended says how, and is gone then', () => {
    const [finding] = found(shot({ lifetime: '1s' }));
    expect((finding.fix!.patch[0] as { value: unknown }).value).toBe('2s');
    expect(found(shot({ lifetime: (finding.fix!.patch[0] as { value: unknown }).value }))).toEqual([]);
  });
});

describe('An ability can’t', () => {
  const wrong: readonly (readonly [string, Record<string, unknown>, string])[] = [
    ['land an area in a direction', { target: { at: 'direction' }, deliver: { by: 'area', radius: 9 } }, '/abilities/0/deliver/by'],
    ['fly from itself to itself', { deliver: { by: 'projectile', speed: 9, lifetime: '1s' } }, '/abilities/0/deliver/by'],
    ['reach anybody in a direction without sending something', { target: { at: 'direction' } }, '/abilities/0/target/at'],
    ['be broken where it takes no time', { brokenBy: { damage: 1 } }, '/abilities/0/brokenBy'],
    [
      'let its user move and be broken by it',
      { cast: { time: '1s', move: true }, brokenBy: { movement: true } },
      '/abilities/0/brokenBy/movement',
    ],
    ['take a mark that its clip does not have', { cast: { time: { clip: 'sweep', mark: 'hit' } } }, '/abilities/0/cast/time/mark'],
    ['take a clip that is not there', { cast: { time: { clip: 'swoop' } } }, '/abilities/0/cast/time/clip'],
    ['tell a number that it does not have', { tooltip: { text: 'For {ability.casst} s' } }, '/abilities/0/tooltip/text'],
    ['leave a brace open', { tooltip: { text: 'For {ability.cast s' } }, '/abilities/0/tooltip/text'],
    ['refuse without a word', { requires: [{ if: 'stamina > 3' }] }, '/abilities/0/requires/0'],
    ['be in a group that is not there', { groups: ['tools'] }, '/abilities/0/groups/0'],
  ];
  const clips = [{ id: 'sweep', label: 'Sweep', length: '2s', marks: [{ mark: 'strike', at: '1s' }] }];
  for (const [what, ability, path] of wrong)
    it(what, () => expect(readRuleset(rulesOf(ability, { clips })).problems.map((problem) => problem.path)).toEqual([path]));
});

describe('A clip', () => {
  const problems = (clip: Record<string, unknown>) =>
    readRuleset(rulesetWith({ clips: [{ id: 'sweep', label: 'Sweep', length: '2s', ...clip }] })).problems.map(({ path }) => path);
  it('has its marks within it, each once', () => {
    expect(problems({ marks: [{ mark: 'a', at: '2s' }] })).toEqual([]);
    expect(problems({ marks: [{ mark: 'a', at: '2.1s' }] })).toEqual(['/clips/0/marks/0/at']);
    expect(
      problems({
        marks: [
          { mark: 'a', at: '1s' },
          { mark: 'a', at: '1.5s' },
        ],
      }),
    ).toEqual(['/clips/0/marks/1/mark']);
  });
});
