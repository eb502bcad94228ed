import { type CheckResult, compileRuleset, runChecks } from '../../index.js';
import { atOnce } from '../../ruleset/parts.js';
import { counter, pool, rulesetWith } from '../../testing/rulesets.js';

const AIR = pool('air', { see: 'team', start: 80 });
const COINS = counter('coins', { see: 'owner', start: 3 });
const PLAN = counter('plan', { see: 'server', start: 1 });
const RICH = { id: 'rich', label: 'Rich', text: 'Have five coins.', if: 'coins >= 5', see: 'team' };
const teams = [
  { id: 'red', label: 'Red', colour: '#aa0000', pattern: 'plain', mark: 'R' },
  { id: 'blue', label: 'Blue', colour: '#0000aa', pattern: 'plain', mark: 'B' },
];
const given = [
  { name: 'ada', team: 'red' },
  { name: 'bo', team: 'red' },
  { name: 'cy', team: 'blue' },
];
const give = (on: string, amount: number) => ({ on, action: { do: 'give', attribute: 'coins', amount } });
const show = (on: string, text: string) => ({ on, action: { do: 'flourish', text } });

function run(check: Record<string, unknown>): CheckResult {
  const rules = compileRuleset(
    rulesetWith({ attributes: [AIR, COINS, PLAN], teams, achievements: [RICH], checks: [{ id: 'one', label: 'One', given, ...check }] }),
  );
  return atOnce(runChecks(rules))[0];
}
const wrong = ({ mistakes, outcomes }: CheckResult) => [
  ...mistakes.map(({ message }) => message),
  ...outcomes.flatMap(({ failure }) => (failure ? [failure.says] : [])),
];
const expecting = (...then: unknown[]) => run({ stages: [{ when: [give('ada', 2), show('ada', 'A bell rings'), { pass: '1s' }], then }] });

describe('What a seat is told', () => {
  it('is what would be sent to it: a value of its own, of its crew, of all, or of nobody', () => {
    const knows = (seat: string, attribute: string, not?: true) => ({ seat, knows: attribute, of: 'ada', ...(not && { not }) });
    expect(
      wrong(
        expecting(
          knows('ada', 'coins'),
          knows('ada', 'air'),
          knows('bo', 'air'),
          knows('bo', 'coins', true),
          knows('cy', 'air', true),
          knows('ada', 'plan', true),
        ),
      ),
    ).toEqual([]);
    expect(wrong(expecting(knows('cy', 'air'), knows('bo', 'air', true), knows('dee', 'air')))).toEqual([
      'cy is not told air of ada.',
      'bo is told air of ada: 80.',
      'Nobody sits at dee.',
    ]);
  });

  it('is what it reads, in the sentence of what happened or in a text that is shown', () => {
    expect(wrong(expecting({ seat: 'ada', reads: 'a bell' }, { seat: 'bo', reads: 'a bell', count: 'exactly', times: 0 }))).toEqual([]);
    expect(wrong(expecting({ seat: 'ada', reads: 'a gong' }))[0]).toMatch(/^ada reads this never; what it read last is “.+”\.$/);
    expect(wrong(expecting({ seat: 'ada', reads: 'a bell', count: 'exactly', times: 2 }))).toEqual(['ada reads this once: at 0.05 s.']);
  });

  it('is an event, where it is told of it', () => {
    const shown = (toldTo: string, times: number) => ({ event: { on: 'achievementUnlocked' }, toldTo, times });
    const result = expecting(shown('ada', 1), shown('bo', 1), shown('cy', 0));
    expect(result.mistakes.map(({ message }) => message)).toEqual([]);
    expect(wrong(result)).toEqual([]);
    expect(wrong(expecting(shown('cy', 1)))).toEqual(['It did not happen.']);
  });
});

describe('A restart within a check', () => {
  it('keeps what is kept of players, and nothing else; time goes on', () => {
    const result = run({
      stages: [
        {
          when: [give('ada', 4), { on: 'ada', action: { do: 'hurt', attribute: 'air', amount: 30 } }, { pass: '2s' }],
          then: [
            { of: 'ada', value: 'air', amount: 50 },
            { of: 'ada', value: 'coins', amount: 7 },
          ],
        },
        {
          when: [{ restarts: true }],
          then: [
            { of: 'ada', value: 'air', amount: 80 },
            { of: 'ada', value: 'coins', amount: 7 },
          ],
        },
        {
          when: [give('ada', 1), { pass: '1s' }],
          then: [
            { of: 'ada', value: 'coins', amount: 8 },
            { event: { on: 'attributeChanged', attribute: 'coins', how: 'give' }, of: 'ada', times: 2 },
          ],
        },
      ],
    });
    expect(wrong(result)).toEqual([]);
    expect(result.outcomes.map(({ t }) => t)).toEqual([2, 2, 2, 2, 3, 3]);
    expect(result.outcomes.at(-1)!.says).toBe('at 0.05 s and at 2.05 s');
  });
});
