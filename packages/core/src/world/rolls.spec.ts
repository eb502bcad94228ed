import { rollOf } from './hash.js';

/**
 * The sum of squared differences between what was counted and what was expected, each by what was expected (Pearson's
 * chi-square). Below `bound` for all but one in a thousand of honest streams, by the approximation of Wilson and Hilferty.
 */
function chiSquare(counts: readonly number[], expected: readonly number[]): { readonly value: number; readonly bound: number } {
  const value = counts.reduce((sum, count, i) => sum + (count - expected[i]) ** 2 / expected[i], 0);
  const free = counts.length - 1;
  const third = 2 / (9 * free);
  return { value, bound: free * (1 - third + 3.09 * Math.sqrt(third)) ** 3 };
}

const ROLLS = 20_000;
const even = (cells: number, of = ROLLS) => Array.from({ length: cells }, () => of / cells);
const purposes = [1, 2, 3, 77, 0x7fffffff, -5, 123456789];
const whose = [0, 1, 2, 3, 0x100000, 0x100001, 0x200000, -1];

describe('A random stream', () => {
  it('fills every share of the range evenly, for many purposes, players and seeds', () => {
    let over = 0;
    let streams = 0;
    for (const seed of [1, 2, 0x55555555, -9])
      for (const purpose of purposes)
        for (const who of whose.slice(0, 4)) {
          const counts = even(32).map(() => 0);
          for (let n = 0; n < ROLLS; n++) counts[Math.floor(rollOf(seed, purpose, who, n) * 32)]++;
          const { value, bound } = chiSquare(counts, even(32));
          streams++;
          if (value > bound) over++;
        }
    // One in a thousand may be over; of these, more than two would be telling.
    expect(streams).toBe(112);
    expect(over).toBeLessThanOrEqual(2);
  });

  const pairs: readonly [string, (n: number) => readonly [number, number]][] = [
    ['one roll from the next', (n) => [rollOf(7, 5, 3, n), rollOf(7, 5, 3, n + 1)]],
    ['one player from another', (n) => [rollOf(7, 5, 0x100000, n), rollOf(7, 5, 0x100001, n)]],
    ['one player from a later one in the same row', (n) => [rollOf(7, 5, 0x100003, n), rollOf(7, 5, 0x200003, n)]],
    ['one purpose from another', (n) => [rollOf(7, 5, 3, n), rollOf(7, 6, 3, n)]],
    ['one seed from the next', (n) => [rollOf(7, 5, 3, n), rollOf(8, 5, 3, n)]],
    ['a purpose from whose it is', (n) => [rollOf(7, 3, 5, n), rollOf(7, 5, 3, n)]],
  ];
  for (const [what, pair] of pairs)
    it(`tells nothing of ${what}`, () => {
      const counts = even(64).map(() => 0);
      for (let n = 0; n < ROLLS; n++) {
        const [a, b] = pair(n);
        counts[Math.floor(a * 8) * 8 + Math.floor(b * 8)]++;
      }
      const { value, bound } = chiSquare(counts, even(64));
      expect(value).toBeLessThan(bound);
    });

  it('has its first rolls of many players spread evenly as well', () => {
    const counts = even(16).map(() => 0);
    for (let who = 0; who < ROLLS; who++) counts[Math.floor(rollOf(3, 99, (1 << 20) | who, 0) * 16)]++;
    const { value, bound } = chiSquare(counts, even(16));
    expect(value).toBeLessThan(bound);
  });
});
