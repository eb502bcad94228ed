import { toGrid, toWhole } from './grid.js';

describe('Rounding to whole things', () => {
  it('is to the nearest, halves away from zero, the same for a gain and a loss', () => {
    for (const [value, whole] of [
      [0, 0],
      [0.4, 0],
      [0.5, 1],
      [1.5, 2],
      [2.5, 3],
      [6.49, 6],
    ]) {
      expect(toWhole(value)).toBe(whole);
      expect(toWhole(-value)).toBe(whole === 0 ? 0 : -whole);
    }
    expect(Object.is(toWhole(-0.2), 0)).toBeTrue();
    expect(Object.is(toGrid(-1e-9), 0)).toBeTrue();
  });
});
