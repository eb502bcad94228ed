import fc from 'fast-check';
import brinewick from '../../testing/recorded/brinewick.json' with { type: 'json' };
import { type CheckResult, CheckSession, checksOf, checksRun, KeptResults, type Rules, RulesetCompiler, runChecks } from '../../index.js';
import { atOnce } from '../../ruleset/parts.js';

type Json = Record<string, unknown> & { id?: string };
const north = (more: Json = {}) => ({ name: 'north', ...more });
const hurt = { on: 'north', action: { do: 'hurt', attribute: 'suit', amount: 20 } };
const CHECKS: readonly Json[] = [
  { given: [north()], stages: [{ when: [{ pass: '2s' }], then: [{ value: 'oxygen', amount: 87 }] }] },
  { given: [north({ effects: ['marked'] })], stages: [{ when: [hurt, { pass: '5s' }], then: [{ value: 'suit', amount: 83 }] }] },
  { given: [north({ effects: ['bubble'] })], stages: [{ when: [hurt, hurt], then: [{ value: 'suit', amount: 80 }] }] },
  {
    given: [north({ x: 400, y: 400 }), { name: 'eel', actor: 'lamprey', x: 440, y: 400 }],
    stages: [{ when: [{ pass: '3s' }], then: [{ of: 'north', value: 'suit', amount: 82 }] }],
  },
  {
    given: [north({ x: 200, y: 200 }), { name: 'eel', actor: 'lamprey', x: 300, y: 200, still: true }],
    stages: [
      {
        when: [{ on: 'eel', from: 'north', action: { do: 'fell' } }, { pass: '1s' }],
        then: [
          { event: { on: 'actorDefeated' }, of: 'eel' },
          { of: 'north', value: 'foesFelled', amount: 1 },
        ],
      },
    ],
  },
  {
    given: [north()],
    stages: [{ when: [{ seat: 'north', input: { do: 'use', ability: 'sonarPing' } }], then: [{ value: 'stamina', amount: 90 }] }],
  },
  { ground: 'arena', given: [north({ x: 60, y: 60 })], stages: [{ when: [{ pass: '1s' }], then: [{ that: 'has(inBell)' }] }] },
  {
    given: [north()],
    stages: [
      { when: [{ on: 'north', action: { do: 'award', track: 'standing', amount: 60 } }], then: [{ value: 'level(standing)', amount: 2 }] },
    ],
  },
  {
    given: [north({ effects: ['row.effect'] })],
    stages: [{ then: [{ value: 'finSpeed', amount: 'row.is' }] }],
    each: {
      columns: ['effect', 'is'],
      rows: [
        ['slipstream', 168],
        ['silt', 60],
      ],
    },
  },
  { changes: [{ attributes: 'stamina', at: 'max', value: 50 }], given: [north()], stages: [{ then: [{ value: 'stamina', amount: 50 }] }] },
].map((check, i) => ({ id: `check${i}`, label: `Check ${i}`, ...check }));
const DOCUMENT = { ...brinewick, checks: CHECKS } as unknown as Json & Record<string, Json[]>;

const fresh = (rules: Rules): readonly CheckResult[] => {
  const session = new CheckSession(rules);
  return checksOf(rules).map((check) => session.runNow(check));
};
const kept = (rules: Rules) => atOnce(runChecks(rules));

/** Every number of a value, by its place. */
function numbersIn(value: unknown, path: readonly string[] = []): readonly (readonly string[])[] {
  if (typeof value === 'number') return [path];
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([key, part]) => numbersIn(part, [...path, key]));
}
/** A document with something else at a place; all else are the same objects. */
function withAt(value: unknown, [key, ...rest]: readonly string[], make: (now: unknown) => unknown): unknown {
  if (key === undefined) return make(value);
  const put = (part: unknown) => withAt(part, rest, make);
  if (Array.isArray(value)) return value.map((part: unknown, i) => (String(i) === key ? put(part) : part));
  return { ...(value as Json), [key]: put((value as Json)[key]) };
}
const edited = (place: string, make: (now: unknown) => unknown) => withAt(DOCUMENT, place.split('/'), make);
const placeOf = (chapter: string, id: string) => `${chapter}/${DOCUMENT[chapter].findIndex((one) => one.id === id)}`;

describe('Results of checks after an edit', () => {
  const PLACES = numbersIn(DOCUMENT).filter(([section]) => section !== 'checks' && section !== 'situations' && section !== 'version');

  it('are those that a run of all of them has, whatever was edited', () => {
    const compiler = new RulesetCompiler();
    kept(compiler.read(DOCUMENT).rules!);
    let compared = 0;
    fc.assert(
      fc.property(fc.nat(PLACES.length - 1), fc.constantFrom(0.5, 2, 10), (at, factor) => {
        const { rules } = compiler.read(withAt(DOCUMENT, PLACES[at], (now) => Math.max(1, Math.round(Number(now) * factor))));
        fc.pre(rules !== undefined);
        expect(kept(rules)).toEqual(fresh(rules));
        compared++;
      }),
      { numRuns: 25 },
    );
    expect(compared).toBe(25);
  });

  it('cost a run of those that the edit can touch, and of no others', () => {
    const compiler = new RulesetCompiler();
    const run = (document: unknown) => {
      const { rules } = compiler.read(document);
      kept(rules!);
      return checksRun(rules!);
    };
    expect(run(DOCUMENT)).toBe(CHECKS.length);
    expect(run(DOCUMENT)).toBe(0);
    // Two in which there is an eel, one in the arena, where there are some, and one that changes rules itself.
    expect(run(edited(`${placeOf('abilities', 'bite')}/onHit/0/amount`, () => 90))).toBe(4);
    expect(run(DOCUMENT)).toBe(4);
    expect(run(edited('arena/placed/0/x', (x) => Number(x) + 1))).toBe(2);
    expect(run(DOCUMENT)).toBe(2);
    expect(run(edited('checks/0/label', () => 'Air'))).toBe(1);
    expect(run(edited('tickRate', () => 30))).toBe(CHECKS.length);
  });

  it('are told as they come, what is kept first and the long ones last', () => {
    const compiler = new RulesetCompiler();
    const results = new KeptResults();
    atOnce(results.run(compiler.read(DOCUMENT).rules!));
    const { rules } = compiler.read(edited(`${placeOf('abilities', 'bite')}/onHit/0/amount`, () => 90));
    const parts = results.run(rules!);
    expect(results.soFar(rules!, 0)).toEqual([]);
    parts.next();
    expect(results.soFar(rules!, 0).length).toBeGreaterThan(CHECKS.length - 5);
    expect(results.soFar(rules!, CHECKS.length)).toEqual([]);
    const all = atOnce(parts);
    expect(all.map(({ check }) => check.id)).toEqual(CHECKS.map(({ id }) => String(id)));
    const ran = results.soFar(rules!, CHECKS.length - 4);
    expect(ran.map(({ ticks }) => ticks)).toEqual(ran.map(({ ticks }) => ticks).sort((one, other) => one - other));
    expect(results.soFar(compiler.read(DOCUMENT).rules!, 0)).toEqual([]);
  });

  it('are those of the checks that are meant, under another seed where one is said', () => {
    const compiler = new RulesetCompiler();
    const { rules } = compiler.read(DOCUMENT);
    const [one, other] = [new KeptResults(), new KeptResults(7)];
    const isMeant = ({ id }: { id: string }) => id === 'check3';
    const ran: string[] = [];
    const of = (results: KeptResults) =>
      atOnce(results.run(rules!, { isMeant, ran: ({ check }) => ran.push(check.id) })).map(({ check }) => check.id);
    expect([of(one), of(other), ran]).toEqual([['check3'], ['check3'], ['check3', 'check3']]);
    expect([atOnce(one.run(rules!)).length, one.ran]).toEqual([CHECKS.length, CHECKS.length - 1]);
  });

  it('follow a reaction as soon as it waits for something that happens', () => {
    const compiler = new RulesetCompiler();
    const reaction = placeOf('reactions', 'firstInTheWreck');
    const run = (on: string) => {
      const { rules } = compiler.read(
        edited(`${reaction}`, (now) => ({ ...(now as Json), on: { on }, then: [{ do: 'hurt', attribute: 'suit', amount: 1 }] })),
      );
      kept(rules!);
      return checksRun(rules!);
    };
    kept(compiler.read(DOCUMENT).rules!);
    expect(run('lootRolled')).toBeLessThan(4);
    expect(run('attributeChanged')).toBeGreaterThan(3);
  });
});
