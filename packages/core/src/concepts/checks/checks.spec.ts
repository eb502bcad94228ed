import { type CheckResult, findingsOf, readRuleset, renameEntry, RulesetCompiler, runChecks, usesOf } from '../../index.js';
import { atOnce } from '../../ruleset/parts.js';
import { pool, rulesetWith } from '../../testing/rulesets.js';

const HEALTH = pool('health', { max: 12, start: 5 });
const KEEPER = { id: 'keeper', label: 'Keeper', kind: 'player', attributes: [{ attribute: 'health' }] };
const check = (more: Record<string, unknown>, id = 'one') => ({ id, label: 'One', given: [{ name: 'ada' }], ...more });
const having = (value: number | string) => [{ name: 'ada', with: [{ attribute: 'health', value }] }];
const heal = (amount: number | string) => ({ on: 'ada', action: { do: 'heal', attribute: 'health', amount } });
const hurt = (amount: number | string) => ({ on: 'ada', action: { do: 'hurt', attribute: 'health', amount } });
const is = (amount: number | string, more: Record<string, unknown> = {}) => ({ value: 'health', amount, ...more });

function resultsOf(parts: Record<string, unknown>): readonly CheckResult[] {
  const { rules, problems } = readRuleset(rulesetWith(parts));
  expect(problems).toEqual([]);
  return atOnce(runChecks(rules!));
}
const run = (more: Record<string, unknown>, parts: Record<string, unknown> = {}): CheckResult =>
  resultsOf({ attributes: [HEALTH], actors: [KEEPER], ...parts, checks: [check(more)] })[0];
/** What is wrong with a check, each with its place. */
const wrong = ({ mistakes, outcomes }: CheckResult) => [
  ...mistakes.map(({ path, message }) => `${path}: ${message}`),
  ...outcomes.flatMap(({ path, failure }) => (failure ? [`${path}: ${failure.says}`] : [])),
];

describe('A check written before the rule', () => {
  const wanted = check({
    given: [{ name: 'ada', with: [{ attribute: 'health', value: 1, atMost: 12 }] }],
    stages: [{ when: [heal(2)], then: [is(3)] }],
  });

  it('is red in an empty ruleset, which it leaves sound', () => {
    const [result] = resultsOf({ actors: [], checks: [wanted] });
    expect(wrong(result)).toEqual([
      'given/0/with/0/attribute: The attributes have no entry health.',
      'stages/0/when/0/action/attribute: The attributes have no entry health.',
      'stages/0/then/0/value: Nothing is called health here.',
    ]);
    expect(wrong(resultsOf({ attributes: [HEALTH], actors: [], checks: [wanted] })[0])).toEqual([
      'given/0/actor: The ruleset has no actor of kind player for a seat to drive.',
    ]);
    const without = { ...KEEPER, attributes: [] };
    expect(wrong(resultsOf({ attributes: [HEALTH], actors: [without], checks: [wanted] })[0])).toEqual([
      'given/0/with/0/attribute: ada has no health.',
    ]);
  });

  it('turns green with the rule', () => {
    const [result] = resultsOf({ attributes: [HEALTH], actors: [KEEPER], checks: [wanted] });
    expect(wrong(result)).toEqual([]);
    expect(result.ok).toBeTrue();
    expect(result.outcomes).toEqual([{ path: 'stages/0/then/0', holds: true, t: 0.05, says: '3' }]);
  });

  it('says what there is instead where the rule differs', () => {
    const lower = { ...HEALTH, max: 10 };
    expect(wrong(run(wanted, { attributes: [lower] }))).toEqual(['given/0/with/0/atMost: health is at most 10 here, not 12.']);
    expect(wrong(run({ given: having(13) }))).toEqual(['given/0/with/0/value: ada can’t have 13 health: it is at most 12.']);
  });

  it('follows a renaming, in formulas as well, and is no use that is in the way', () => {
    const { rules } = readRuleset(
      rulesetWith({
        attributes: [HEALTH],
        actors: [KEEPER],
        checks: [
          check({
            given: having('row.start'),
            stages: [{ when: [heal(1)], then: [is('row.start + 1'), { that: 'health > row.start' }] }],
            each: { columns: ['start'], rows: [[3]] },
          }),
        ],
      }),
    );
    const { patch } = renameEntry(rules!, 'attributes', 'health', 'vigour');
    expect(patch!.filter(({ path }) => path.startsWith('/checks')).map((one) => ('value' in one ? [one.path, one.value] : []))).toEqual([
      ['/checks/0/given/0/with/0/attribute', 'vigour'],
      ['/checks/0/stages/0/when/0/action/attribute', 'vigour'],
      ['/checks/0/stages/0/then/0/value', 'vigour'],
      ['/checks/0/stages/0/then/1/that', 'vigour > row.start'],
    ]);
    expect(usesOf(rules!, 'attributes', 'health').filter(({ chapter }) => chapter === 'checks').length).toBe(4);
  });
});

describe('What a check expects', () => {
  it('of a value: that it is, is not, is at least, at most or between, give or take', () => {
    expect(
      wrong(
        run({
          stages: [
            {
              then: [
                is(5),
                is(4, { how: 'isNot' }),
                is(5, { how: 'atLeast' }),
                is(5, { how: 'atMost' }),
                is(4, { how: 'between', and: 6 }),
                is(6, { tolerance: 1 }),
              ],
            },
          ],
        }),
      ),
    ).toEqual([]);
    expect(
      wrong(
        run({
          stages: [
            {
              then: [
                is(4),
                is(5, { how: 'isNot' }),
                is(6, { how: 'atLeast' }),
                is(4, { how: 'atMost' }),
                is(6, { how: 'between', and: 8 }),
                is(7, { tolerance: 1 }),
              ],
            },
          ],
        }),
      ),
    ).toEqual([
      'stages/0/then/0: ada: health is 5, not 4.',
      'stages/0/then/1: ada: health is 5, and should not be 5.',
      'stages/0/then/2: ada: health is 5, not at least 6.',
      'stages/0/then/3: ada: health is 5, not at most 4.',
      'stages/0/then/4: ada: health is 5, not between 6 and 8.',
      'stages/0/then/5: ada: health is 5, not 7, give or take 1.',
    ]);
  });

  it('of a value: what was found can be taken as right', () => {
    const { outcomes } = run({ stages: [{ when: [hurt(2)], then: [is(4), is(9, { how: 'between', and: 12 })] }] });
    expect(outcomes.map(({ failure }) => failure?.right)).toEqual([
      { path: 'stages/0/then/0/amount', value: 3 },
      { path: 'stages/0/then/1/amount', value: 3 },
    ]);
  });

  it('of a condition', () => {
    expect(wrong(run({ stages: [{ then: [{ that: 'health > 4' }] }] }))).toEqual([]);
    expect(wrong(run({ stages: [{ then: [{ that: 'health > 5' }] }] }))).toEqual(['stages/0/then/0: ada: this is not so: health is 5.']);
  });

  it('always, and never: at every tick from the beginning on', () => {
    const story = { given: having(3), stages: [{ when: [hurt(20), { pass: '1s' }, heal(50), { pass: '1s' }], then: [is(12)] }] };
    expect(wrong(run({ ...story, always: [is(0, { how: 'atLeast' }), is(12, { how: 'atMost' })] }))).toEqual([]);
    const broken = run({ ...story, always: [is(1, { how: 'atLeast' }), { that: 'health > 10', never: true }] });
    expect(broken.outcomes.filter(({ holds }) => !holds).map(({ path, t }) => [path, t])).toEqual([
      ['always/0', 0.05],
      ['always/1', 1.05],
    ]);
  });

  it('of an event: how often, for whom, with which fields, before what', () => {
    const changed = (how: string, more: Record<string, unknown> = {}) => ({ event: { on: 'attributeChanged', how }, ...more });
    const story = (then: unknown[]) => run({ stages: [{ when: [hurt(1), hurt(1), { pass: '1s' }, heal(1)], then }] });
    expect(
      wrong(
        story([
          changed('hurt', { times: 2 }),
          changed('hurt', { of: 'ada', count: 'atLeast' }),
          changed('heal', { of: 'ada' }),
          changed('give', { times: 0 }),
          changed('hurt', { times: 2, before: { on: 'attributeChanged', how: 'heal' } }),
        ]),
      ),
    ).toEqual([]);
    expect(wrong(story([changed('hurt'), changed('give'), changed('heal', { before: { on: 'attributeChanged', how: 'hurt' } })]))).toEqual([
      'stages/0/then/0: It happened twice: at 0.05 s and at 0.05 s.',
      'stages/0/then/1: It did not happen.',
      'stages/0/then/2: It came after, at 1.05 s: the other came at 0.05 s.',
    ]);
  });

  it('within a time: what is not so yet is waited for, and no longer', () => {
    const refilled = { ...HEALTH, refill: { rate: 2 } };
    const told = (within: string) =>
      wrong(run({ given: having(4), stages: [{ then: [{ that: 'health >= 8', within }] }] }, { attributes: [refilled] }));
    expect(told('2s')).toEqual([]);
    expect(told('1.9s')).toEqual(['stages/0/then/0: ada: this is not so: health is 7.8.']);
  });

  it('of everyone, each of a kind, all of a crew: the first for whom it does not hold is named', () => {
    const teams = [
      { id: 'red', label: 'Red', colour: '#aa0000', pattern: 'plain', mark: 'R' },
      { id: 'blue', label: 'Blue', colour: '#0000aa', pattern: 'plain', mark: 'B' },
    ];
    const given = [
      { name: 'ada', team: 'red' },
      { name: 'bo', team: 'red' },
      { name: 'cy', team: 'blue', with: [{ attribute: 'health', value: 2 }] },
    ];
    const told = (of: unknown) => wrong(run({ given, stages: [{ then: [is(5, { of })] }] }, { teams }));
    expect(told('ada')).toEqual([]);
    expect(told({ crew: 'red' })).toEqual([]);
    for (const of of ['everyone', undefined, { every: 'keeper' }, { crew: 'blue' }])
      expect(told(of)).toEqual(['stages/0/then/0: cy: health is 2, not 5.']);
    expect(told('dee')).toEqual(['stages/0/then/0: Nobody here is called dee.']);
  });

  it('of a refusal, by its words', () => {
    const abilities = [{ id: 'leap', label: 'Leap', costs: [{ attribute: 'health', amount: 9 }], cooldown: '1s' }];
    const actors = [{ ...KEEPER, abilities: ['leap'] }];
    const told = (refused: string) =>
      wrong(
        run(
          { stages: [{ when: [{ seat: 'ada', input: { do: 'use', ability: 'leap' } }], then: [{ of: 'ada', refused }] }] },
          { abilities, actors },
        ),
      );
    expect(told('health')).toEqual([]);
    expect(told('cooling down')[0]).toContain('It was refused with other words: “');
  });

  it('of the ruleset: that it is refused with something changed', () => {
    const changes = [{ attributes: 'health', at: 'start', value: 20 }];
    expect(wrong(run({ changes, stages: [{ then: [{ ruleset: 'refused', saying: 'above the maximum' }] }] }))).toEqual([]);
    expect(wrong(run({ changes, stages: [{ then: [{ ruleset: 'refused', saying: 'below' }] }] }))[0]).toContain('refused with other words');
    expect(wrong(run({ changes }))[0]).toContain('changes: The ruleset is refused with this: ');
    const sound = [{ attributes: 'health', at: 'start', value: 7 }];
    expect(wrong(run({ changes: sound, stages: [{ then: [is(7)] }] }))).toEqual([]);
    expect(wrong(run({ changes: sound, stages: [{ then: [{ ruleset: 'refused' }] }] }))).toEqual([
      'stages/0/then/0: The ruleset is accepted.',
    ]);
    expect(wrong(run({ changes: [{ attributes: 'health', at: 'refill/rate', value: 1 }] }))).toEqual(['changes/0/at: There is no refill.']);
  });
});

describe('A check for each row of a table', () => {
  const story = { given: having('row.start'), stages: [{ when: [heal('row.healed')], then: [is('row.expected')] }] };
  const table = (columns: string[], ...rows: unknown[][]) => ({ ...story, each: { columns, rows } });

  it('names the row that fails, and where in the table what was found would stand', () => {
    const result = run(table(['start', 'healed', 'expected'], [1, 2, 3], [11, 5, 12], [12, 0, 11]));
    expect(result.ok).toBeFalse();
    expect(result.rows!.map(({ ok }) => ok)).toEqual([true, true, false]);
    expect(result.rows![2].label).toBe('start 12, healed 0, expected 11');
    expect(result.outcomes[0].failure).toEqual(
      jasmine.objectContaining({ says: 'ada: health is 12, not 11.', right: { path: 'each/rows/2/2', value: 12 } }),
    );
  });

  it('says what is wrong with the table at its place; the other rows are run', () => {
    expect(wrong(run(table(['start', 'heald', 'expected'], [1, 2, 3])))).toEqual([
      'stages/0/when/0/action/amount: The table has no column healed. Did you mean heald?',
    ]);
    const short = run(table(['start', 'healed', 'expected'], [1, 2], [1, 2, 3]));
    expect(wrong(short)).toEqual(['each/rows/0: Row 1 has 2 cells, and the table 3 columns.']);
    expect(short.rows!.map(({ ok }) => ok)).toEqual([false, true]);
    expect(wrong(run(table(['start', 'healed', 'expected'])))).toEqual(['each: The table has no rows: add one.']);
  });
});

describe('A check with a mistake in it', () => {
  it('is told where it is, and the others run', () => {
    const results = resultsOf({
      attributes: [HEALTH],
      actors: [KEEPER],
      checks: [
        check({ stages: [{ then: [{ value: 'helth', amount: 1 }] }] }, 'a'),
        check({ stages: [{ when: [heal(1)], then: [is(6)] }] }, 'b'),
        check({ given: [{ name: 'ada', actor: 'keper' }] }, 'c'),
        check({ stages: [{ when: [{ on: 'bo', action: { do: 'fell' } }] }] }, 'd'),
        check({ stages: [{ then: [is(4, { how: 'between' })] }] }, 'e'),
        check({ given: [{ name: 'ada' }, { name: 'ada' }] }, 'f'),
      ],
    });
    expect(results.map(({ ok }) => ok)).toEqual([false, true, false, false, false, false]);
    expect(results.flatMap(wrong)).toEqual([
      'stages/0/then/0/value: Nothing is called helth here. Did you mean health?',
      'given/0/actor: The actors have no entry keper. Did you mean keeper?',
      'stages/0/when/0/on: Nobody here is called bo.',
      'stages/0/then/0: What is between needs two ends: say the upper one as well.',
      'given/1/name: ada is given twice: call this one otherwise.',
    ]);
  });

  it('that waits for what never comes ends when its time is over; one that goes on too long is cut', () => {
    expect(wrong(run({ stages: [{ when: [{ until: 'health > 50', within: '2s' }] }] }))).toEqual([
      'stages/0/when/0: This did not come about within 2 s.',
    ]);
    expect(wrong(run({ stages: [{ when: [{ pass: '86400s' }] }] }))[0]).toContain('A check runs for at most 36000 ticks');
  });

  it('that speaks of what somebody lacks says so', () => {
    const eel = { id: 'eel', label: 'Eel', kind: 'foe' };
    const given = [{ name: 'nip', actor: 'eel' }];
    expect(wrong(run({ given, stages: [{ then: [is(1, { of: 'nip' })] }] }, { actors: [KEEPER, eel] }))).toEqual([
      'stages/0/then/0: nip has no health.',
    ]);
  });
});

describe('The beginning of a check', () => {
  it('is what is given, before any time has passed', () => {
    const drained = { ...HEALTH, refill: { rate: -1 } };
    expect(
      wrong(run({ given: having(4), stages: [{ then: [is(4)] }, { when: [{ pass: '2s' }], then: [is(2)] }] }, { attributes: [drained] })),
    ).toEqual([]);
  });

  it('is the same for all: none sees what another has done', () => {
    const same = check({ stages: [{ when: [hurt(2)], then: [is(3)] }] });
    const results = resultsOf({ attributes: [HEALTH], actors: [KEEPER], checks: [same, { ...same, id: 'two' }, { ...same, id: 'three' }] });
    expect(results.map(({ ok }) => ok)).toEqual([true, true, true]);
  });

  it('leaves foes to themselves unless they stand still', () => {
    const speed = { id: 'speed', label: 'Speed', kind: 'stat', start: 50 };
    const eel = {
      id: 'eel',
      label: 'Eel',
      kind: 'foe',
      speed: 'speed',
      attributes: [{ attribute: 'speed' }, { attribute: 'health' }],
      behaviour: { do: 'chase', within: 300 },
      abilities: ['nip'],
    };
    const abilities = [
      {
        id: 'nip',
        label: 'Nip',
        cooldown: '1s',
        target: { at: 'actor', range: 20 },
        onHit: [{ do: 'hurt', attribute: 'health', amount: 1, to: 'target' }],
      },
    ];
    const story = (still: boolean) =>
      run(
        {
          given: [
            { name: 'ada', x: 300, y: 300 },
            { name: 'nibbler', actor: 'eel', x: 380, y: 300, still },
          ],
          stages: [{ when: [{ pass: '4s' }], then: [is(5, { of: 'ada' })] }],
        },
        { attributes: [HEALTH, speed], actors: [KEEPER, eel], abilities },
      );
    expect(story(true).ok).toBeTrue();
    expect(story(false).ok).toBeFalse();
  });
});

describe('Checks in a ruleset', () => {
  it('bring nothing about, and change nothing of what is compiled', () => {
    const compiler = new RulesetCompiler();
    const document = rulesetWith({ attributes: [HEALTH], actors: [KEEPER] });
    const before = compiler.read(document).rules!;
    const after = compiler.read({
      ...document,
      checks: [check({ stages: [{ when: [{ on: 'ada', action: { do: 'unlock', achievement: 'none' } }], then: [{ that: 'true' }] }] })],
    }).rules!;
    expect(after.tables.every((table, i) => table === before.tables[i])).toBeTrue();
    expect(compiler.last.compiled).toBe(0);
    expect(findingsOf(after).filter(({ kind }) => kind !== 'checksNothing')).toEqual(findingsOf(before));
  });
});

describe('Findings about checks', () => {
  it('are of those that can’t fail, and of those that speak of what is not there', () => {
    const { rules } = readRuleset(
      rulesetWith({
        attributes: [HEALTH],
        actors: [KEEPER],
        checks: [
          check({}, 'a'),
          check({ always: [is(0, { how: 'atLeast' })] }, 'b'),
          check(
            {
              given: having('row.start'),
              stages: [{ then: [is('row.start'), { that: 'has(blessed)' }] }],
              each: { columns: ['start'], rows: [[1]] },
            },
            'c',
          ),
        ],
      }),
    );
    expect(
      findingsOf(rules!)
        .filter(({ path }) => path.startsWith('/checks'))
        .map(({ kind, path }) => `${kind} ${path}`),
    ).toEqual(['expectsNothing /checks/0', 'checksNothing /checks/2']);
  });
});
