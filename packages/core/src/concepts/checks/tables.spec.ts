import { type CheckResult, huntsOf, readRuleset, renameEntry, runChecks, Search } from '../../index.js';
import { atOnce } from '../../ruleset/parts.js';
import { counter, pool, rulesetWith } from '../../testing/rulesets.js';

describe('The id of an entry', () => {
  it('is followed into the cells of a table', () => {
    const { rules } = readRuleset(
      rulesetWith({
        attributes: [pool('health')],
        checks: [
          {
            id: 'one',
            label: 'One',
            given: [{ name: 'ada' }],
            stages: [
              {
                when: [{ on: 'ada', action: { do: 'heal', attribute: 'row.of', amount: 1 } }],
                then: [{ value: 'row.of', amount: 'row.is' }],
              },
            ],
            each: { columns: ['of', 'is'], rows: [['health', 'health + 0']] },
          },
        ],
      }),
    );
    const { patch } = renameEntry(rules!, 'attributes', 'health', 'vigour');
    expect(patch!.flatMap((one) => (one.path.startsWith('/checks') && 'value' in one ? [[one.path, one.value]] : []))).toEqual([
      ['/checks/0/each/rows/0/0', 'vigour'],
      ['/checks/0/each/rows/0/1', 'vigour + 0'],
    ]);
  });
});

const RULES = rulesetWith({
  attributes: [pool('health'), counter('brass', { start: 9 }), counter('coin')],
  economy: { currency: 'coin' },
  effects: [
    { id: 'bleeding', label: 'Bleeding', lasts: '5s', periodic: { every: '1s', then: [{ do: 'hurt', attribute: 'health', amount: 5 }] } },
  ],
  markets: [{ id: 'quay', label: 'Quay', goods: [{ good: 'brass', price: { range: [3, 3] } }] }],
});
/** What becomes of a check of one diver, with a table or without. */
const run = (check: object): CheckResult => {
  const { rules, problems } = readRuleset({ ...RULES, checks: [{ id: 'one', label: 'One', given: [{ name: 'ada' }], ...check }] });
  expect(problems).toEqual([]);
  return atOnce(runChecks(rules!))[0];
};
const rowsOf = ({ rows }: CheckResult) =>
  rows!.map(({ ok, mistakes }) => (mistakes.length > 0 ? mistakes.map(({ path, message }) => `${path}: ${message}`) : ok));
const bleeds = { on: 'ada', action: { do: 'apply', effect: 'bleeding' } };
const falls = { on: 'attributeChanged', attribute: 'health' };

describe('What a row has', () => {
  it('stands for a time and a count as well', () => {
    const result = run({
      stages: [{ when: [bleeds, { pass: 'row.wait' }], then: [{ event: falls, times: 'row.times' }] }],
      each: {
        columns: ['wait', 'times'],
        rows: [
          ['500ms', 0],
          [1.2, 1],
          ['3.2s', 3],
          ['3.2s', 2],
        ],
      },
    });
    expect(rowsOf(result)).toEqual([true, true, true, false]);
    // What takes it as right is written into the table.
    expect(result.outcomes[0].failure!.right).toEqual({ path: 'each/rows/3/1', value: 3 });
  });

  it('stands for a place, and for what is asked for', () => {
    const near = { do: 'hurt', attribute: 'health', amount: 10, to: { nearby: 100, who: 'others' } };
    expect(
      rowsOf(
        run({
          given: [
            { name: 'ada', x: 0, y: 0 },
            { name: 'bo', x: 'row.x', y: 0 },
          ],
          stages: [
            { when: [{ on: 'ada', action: near }], then: [{ of: 'bo', value: 'health', amount: 'row.left', tolerance: 'row.off' }] },
          ],
          each: {
            columns: ['x', 'left', 'off'],
            rows: [
              [50, 90, 0],
              [99, 91, 1],
              [200, 100, 0],
              [200, 90, 5],
            ],
          },
        }),
      ),
    ).toEqual([true, true, true, false]);
    expect(
      rowsOf(
        run({
          stages: [
            {
              when: [{ seat: 'ada', input: { do: 'sell', good: 'row.good', amount: 'row.many' } }],
              then: [{ value: 'coin', amount: 'row.coin' }],
            },
          ],
          each: {
            columns: ['good', 'many', 'coin'],
            rows: [
              ['brass', 2, 6],
              ['brass', 9, 27],
              ['brass', 2, 7],
            ],
          },
        }),
      ),
    ).toEqual([true, true, false]);
  });

  it('has to make sense where it stands, and is told at its cell where it does not', () => {
    const stages = [{ when: [{ pass: 'row.wait' }], then: [{ event: falls, times: 'row.times' }] }];
    const result = run({
      stages,
      each: {
        columns: ['wait', 'times'],
        rows: [
          ['soon', 0],
          ['1s', 0],
          ['1s', 0.5],
          ['row.times', 0],
        ],
      },
    });
    expect(rowsOf(result)).toEqual([
      ['each/rows/0/0: “soon” does not fit where row.wait stands: A time is expected, such as "1.5s" or "250ms".'],
      true,
      ['each/rows/2/1: “0.5” does not fit where row.times stands: A whole number is expected.'],
      ['each/rows/3/0: A cell can’t ask for what another has: say it here.'],
    ]);
    expect(run({ stages }).mistakes).toEqual([{ path: 'stages/0/when/0/pass', message: 'There is no table that has a column wait.' }]);
    const { problems } = readRuleset({ ...RULES, checks: [{ id: 'one', label: 'One', given: [{ name: 'ada', x: 'left' }] }] });
    expect(problems.map(({ path, message }) => [path, message])).toEqual([['/checks/0/given/0/x', 'A number is expected.']]);
  });

  it('is nothing that a hunt can speak of', () => {
    const hunt = { id: 'one', label: 'One', given: [{ name: 'ada', x: 'row.x' }], may: [{ pass: '1s' }] };
    const { rules } = readRuleset({ ...RULES, hunts: [hunt] });
    expect(new Search(rules!, huntsOf(rules!)[0]).mistakes).toEqual([
      { path: 'given/0/x', message: 'There is no table that has a column x.' },
    ]);
  });
});

describe('The time of what happens', () => {
  const given = [{ name: 'ada', effects: ['bleeding'] }];
  const at = (more: object) => run({ given, stages: [{ then: [{ event: falls, ...more }] }] });
  const said = ({ ok, outcomes: [one], mistakes }: CheckResult) => [ok, one?.failure?.says ?? mistakes[0]?.message ?? one.says];

  it('is said to the tick, or with how much it may be off', () => {
    expect(said(at({ at: '1s' }))).toEqual([true, 'at 1 s']);
    expect(said(at({ at: 1.02 }))).toEqual([true, 'at 1 s']);
    expect(said(at({ at: '1.3s', giveOrTake: '300ms' }))).toEqual([true, 'at 1 s']);
    expect(said(at({ at: '2.9s', giveOrTake: '1s', times: 2 }))).toEqual([true, 'at 2 s and at 3 s']);
    expect(said(at({ at: '1500ms', times: 0 }))).toEqual([true, 'at 1 s']);
    expect(said(at({ at: '1.3s', giveOrTake: '200ms' }))).toEqual([false, 'It happened at 1 s, not at 1.3 s, give or take 0.2 s.']);
    expect(said(at({ at: '9s' }))).toEqual([false, 'It happened at 1 s, at 2 s, at 3 s, at 4 s and once more, not at 9 s.']);
  });

  it('can be taken as right, where it happened once', () => {
    // A check that has failed runs on for a while, to say when it came.
    const [early] = at({ at: '800ms' }).outcomes;
    expect([early.t, early.failure!.says, early.failure!.right]).toEqual([
      0.8,
      'It happened at 1 s, not at 0.8 s.',
      { path: 'stages/0/then/0/at', value: 1 },
    ]);
    const { failure: none } = run({ stages: [{ then: [{ event: falls, at: '800ms' }] }] }).outcomes[0];
    expect(none).toEqual(jasmine.objectContaining({ says: 'It did not happen.', expected: 'once at 0.8 s', found: 'never', cause: 0 }));
    const { failure } = at({ at: '800ms', giveOrTake: '200ms', times: 2 }).outcomes[0];
    expect([failure!.says, failure!.right]).toEqual(['It happened once: at 1 s.', { path: 'stages/0/then/0/times', value: 1 }]);
    const late = run({ given, stages: [{ when: [{ pass: '1.5s' }], then: [{ event: falls, at: '500ms' }] }] }).outcomes[0].failure!;
    expect([late.says, late.right]).toEqual(['It happened at 1 s, not at 0.5 s.', { path: 'stages/0/then/0/at', value: 1 }]);
  });

  it('is said too early as well as too late, of what comes true', () => {
    const low = (more: object) => run({ given, stages: [{ then: [{ value: 'health', how: 'atMost', amount: 92, ...more }] }] });
    expect(said(low({ within: '2.2s', notBefore: '1.8s' }))).toEqual([true, '90']);
    expect(said(low({ within: '5s', notBefore: 3 }))).toEqual([false, 'It came true after 2 s, and should not have before 3 s.']);
    expect(said(run({ stages: [{ then: [{ that: 'health > 5', within: '2s', notBefore: '1s' }] }] }))).toEqual([
      false,
      'It came true at once, and should not have before 1 s.',
    ]);
  });

  it('is told where it makes no sense together', () => {
    expect(said(at({ at: '1s', within: '2s' }))).toEqual([false, 'It happens at a time, or within one: say one of the two.']);
    expect(said(at({ giveOrTake: '1s' }))).toEqual([false, 'Say as well at what time it happens.']);
    expect(run({ stages: [{ then: [{ that: 'health > 5', notBefore: '1s' }] }] }).mistakes).toEqual([
      { path: 'stages/0/then/0/notBefore', message: 'Say as well within what time it comes true.' },
    ]);
  });
});
