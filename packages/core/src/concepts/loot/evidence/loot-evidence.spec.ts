import fc from 'fast-check';
import { compileRuleset, lootEvidence, LootSampler } from '../../../index.js';
import { counter, rulesetWith } from '../../../testing/rulesets.js';

const rulesOf = (loot: readonly unknown[]) =>
  compileRuleset(
    rulesetWith({
      attributes: [
        counter('brass', { whole: true }),
        counter('pearls', { whole: true }),
        counter('glass', { whole: true }),
        counter('rank'),
      ],
      loot,
    }),
  );
const table = (more: Record<string, unknown>, id = 'haul') => ({ id, label: id, ...more });
const brass = (weight: number | string, more: Record<string, unknown> = {}) => ({ id: 'brass', weight, gives: 'brass', ...more });
const pearl = (weight: number | string, more: Record<string, unknown> = {}) => ({ id: 'pearl', weight, gives: 'pearls', ...more });
const glass = (weight: number | string, more: Record<string, unknown> = {}) => ({ id: 'glass', weight, gives: 'glass', ...more });
const nothing = (weight: number) => ({ id: 'nothing', weight });
const evidence = (loot: readonly unknown[], roller = {}, thing?: string) => lootEvidence(rulesOf(loot), 'haul', roller, thing)!;
const chances = (loot: readonly unknown[], roller = {}) => evidence(loot, roller).lines.map(({ chance }) => Number(chance.toFixed(6)));

describe('The odds of a loot table', () => {
  it('are shares of the weights: a lone entry is certain, more entries mean less of each', () => {
    expect(chances([table({ entries: [brass(0.01)] })])).toEqual([1]);
    expect(chances([table({ entries: [brass(40), glass(30), pearl(10), nothing(20)] })])).toEqual([0.4, 0.3, 0.1, 0.2]);
    expect(chances([table({ entries: [brass(1), nothing(1), pearl(2)] })])).toEqual([0.25, 0.25, 0.5]);
  });

  it('follow what the one who rolls has, and say what that is', () => {
    const loot = [table({ entries: [brass(1), pearl('rank', { if: 'rank >= 3' })] })];
    expect(chances(loot)).toEqual([1, 0]);
    expect(chances(loot, { attributes: { rank: 3 } })).toEqual([0.25, 0.75]);
    expect(evidence(loot, { attributes: { rank: 3 } }).reads).toEqual([{ of: 'attributes', id: 'rank', label: 'rank', value: 3 }]);
  });

  it('count several rolls, ranges and nested tables together', () => {
    const loot = [
      table({
        rolls: 2,
        always: [{ id: 'pay', gives: 'glass', quantity: { random: [5, 12], whole: true } }],
        entries: [brass(1, { quantity: { random: [1, 3], whole: true } }), { id: 'in', weight: 3, table: 'inner', quantity: 2 }],
      }),
      table({ entries: [pearl(1), nothing(4)] }, 'inner'),
    ];
    const { expected, lines, empty } = evidence(loot);
    const of = (label: string) => expected.find((one) => one.label === label)!.mean;
    expect(of('glass')).toBeCloseTo(8.5, 9);
    expect(of('brass')).toBeCloseTo(2 * 0.25 * 2, 9);
    expect(of('pearls')).toBeCloseTo(2 * 0.75 * 2 * 0.2, 9);
    expect(lines[0].drawn).toBeCloseTo(1 - 0.75 ** 2, 9);
    expect(empty).toBe(0);
  });

  it('count every order of drawing without putting back', () => {
    const { lines } = evidence([table({ rolls: 2, withoutReplacement: true, entries: [brass(2), glass(1), pearl(1)] })]);
    // By hand: brass first 1/2; or glass or pearl first (1/4 each) and brass second (2/3).
    expect(lines[0].drawn).toBeCloseTo(0.5 + 0.5 * (2 / 3), 9);
    expect(lines[1].drawn).toBeCloseTo(0.25 + 0.5 * 0.5 + 0.25 * (1 / 3), 9);
  });

  it('say after how many openings half, nine in ten and ninety-nine in a hundred have it', () => {
    const { until, exact } = evidence([table({ entries: [pearl(1), nothing(9)] })]);
    expect(exact).toBeTrue();
    expect(until!.label).toBe('pearls');
    // ln(0.5)/ln(0.9) = 6.58, ln(0.1)/ln(0.9) = 21.85, ln(0.01)/ln(0.9) = 43.7
    expect(until!.at).toEqual([7, 22, 44]);
    expect(evidence([table({ entries: [brass(1)] })], {}, 'gives/9').until!.at).toEqual([1, 1, 1]);
  });

  it('cut the tail off where bad luck is made up for, and say what that really gives', () => {
    const streak = { entry: 'pearl', after: 20, adds: 6 };
    const loot = [table({ entries: [brass(88), pearl(2)], streak })];
    const { until, expected } = evidence(loot);
    const plain = 2 / 90;
    expect(until!.plain!.at[2]).toBe(Math.ceil(Math.log(0.01) / Math.log(1 - plain)));
    // By hand: dry for 20 openings at 1/45 each, then weights 8, 14, 20 … beside 88.
    let dry = 1;
    let n = 0;
    const at: (number | undefined)[] = [undefined, undefined, undefined];
    let lived = 0;
    while (dry > 1e-12) {
      lived += dry;
      const weight = 2 + (n >= 20 ? 6 * (n - 19) : 0);
      dry *= 1 - weight / (weight + 88);
      n++;
      [0.5, 0.9, 0.99].forEach((share, i) => (at[i] ??= 1 - dry >= share ? n : undefined));
    }
    expect(until!.at).toEqual(at);
    expect(until!.at[2]).toBeLessThan(until!.plain!.at[2]! / 3);
    const pearls = expected.find(({ label }) => label === 'pearls')!;
    expect(pearls.mean).toBeCloseTo(1 / lived, 6);
    expect(pearls.plain).toBeCloseTo(plain, 9);
  });

  it('follow another entry through a streak that is not its own', () => {
    const loot = [table({ entries: [brass(1), pearl(1), nothing(8)], streak: { entry: 'pearl', after: 2, certain: 4 } })];
    const { until } = evidence(loot, {}, 'gives/0');
    const rules = rulesOf(loot);
    const sampler = new LootSampler(rules, 'haul', {}, 'gives/0');
    sampler.run(40_000);
    const asked = until!.compared.map(({ opening }) => opening);
    for (const [i, { mean, error }] of sampler.result(asked).shares.entries())
      expect(Math.abs(mean - until!.compared[i].share)).toBeLessThan(4 * error);
  });
});

describe('What is sampled', () => {
  it('agrees with what is counted out, for twenty tables made by chance', () => {
    const made = fc.sample(generated(), { numRuns: 20, seed: 4711 });
    for (const loot of made) {
      const rules = rulesOf(loot);
      const exact = lootEvidence(rules, 'haul')!;
      expect(exact.exact).toBeTrue();
      const sampler = new LootSampler(rules, 'haul', {}, exact.until!.thing, 99);
      sampler.run(12_000);
      const { chances: seen, expected, shares } = sampler.result(exact.until!.compared.map(({ opening }) => opening));
      const near = (what: string, counted: number, { mean, error }: { mean: number; error: number }) =>
        expect(Math.abs(counted - mean))
          .withContext(`${what} of ${JSON.stringify(loot)}: ${counted} and ${mean} ± ${error}`)
          .toBeLessThanOrEqual(4.5 * error + 1e-9);
      exact.lines.forEach(({ id, chance }, i) => near(id, chance, seen[i]));
      exact.expected.forEach(({ label, mean }, i) => near(label, mean, expected[i]));
      exact.until!.compared.forEach(({ opening, share }, i) => near(`by ${opening}`, share, shares[i]));
    }
  });

  it('is the same for the same seed, in one go or in many', () => {
    const rules = rulesOf([table({ entries: [pearl(1), nothing(9)], streak: { entry: 'pearl', after: 3, adds: 2 } })]);
    const [whole, parts] = [new LootSampler(rules, 'haul', {}, 'gives/1'), new LootSampler(rules, 'haul', {}, 'gives/1')];
    whole.run(3000);
    for (let n = 0; n < 30; n++) parts.run(100);
    expect(parts.result([5, 9])).toEqual(whole.result([5, 9]));
  });
});

/** Tables with two to five entries, rolls, ranges, a nested table, perhaps a streak breaker, perhaps without putting back. */
function generated(): fc.Arbitrary<readonly unknown[]> {
  const weight = fc.integer({ min: 1, max: 20 });
  const quantity = fc.oneof(
    fc.integer({ min: 1, max: 3 }),
    fc.tuple(fc.integer({ min: 0, max: 2 }), fc.integer({ min: 2, max: 5 })).map(([a, b]) => ({ random: [a, b], whole: true })),
  );
  return fc
    .record({
      weights: fc.tuple(weight, weight, weight, weight),
      quantities: fc.tuple(quantity, quantity, quantity),
      rolls: fc.oneof(fc.integer({ min: 1, max: 3 }), fc.constant({ random: [0, 3], whole: true })),
      without: fc.boolean(),
      nested: fc.boolean(),
      streak: fc.option(fc.record({ after: fc.integer({ min: 1, max: 6 }), adds: fc.integer({ min: 1, max: 9 }) }), { nil: undefined }),
    })
    .map(({ weights: [a, b, c, d], quantities: [p, q, r], rolls, without, nested, streak }) => [
      table({
        rolls,
        withoutReplacement: without,
        entries: [
          brass(a, { quantity: p }),
          nested ? { id: 'in', weight: b, table: 'inner', quantity: q } : glass(b, { quantity: q }),
          pearl(c, { quantity: 1 }),
          nothing(d),
        ],
        ...(streak && { streak: { entry: 'pearl', ...streak } }),
      }),
      table({ rolls: 2, entries: [glass(a, { quantity: r }), nothing(b)] }, 'inner'),
    ]);
}
