/**
 * Amounts live on a grid of one millionth. Adding 0.075 four hundred times would otherwise end a little beside 30, and a
 * cost of 25 would be refused to somebody who has 24.999999999999996. Every stored amount is put back on the grid.
 */
const STEPS = 1e6;

/** The largest magnitude an amount may have: above it the grid is finer than a double can tell apart. */
export const LARGEST_AMOUNT = 1e9;

/** Rounds to the nearest millionth, halves up; NaN becomes 0 and magnitudes above {@link LARGEST_AMOUNT} are cut off there. */
export function toGrid(value: number): number {
  if (value > LARGEST_AMOUNT) return LARGEST_AMOUNT;
  if (value < -LARGEST_AMOUNT) return -LARGEST_AMOUNT;
  const steps = Math.floor(value * STEPS + 0.5);
  // `+ 0` turns a negative zero into zero, which hashes differently; the comparison is false for NaN.
  return steps === steps ? steps / STEPS + 0 : 0;
}

/**
 * Rounds to whole things: to the nearest, halves away from zero, so that a gain and a loss of as much come to the same whole.
 * The one rule for all that is counted in whole things: pools and counters, prices, quantities, `round()` of a formula.
 */
export function toWhole(value: number): number {
  // `+ 0` turns a negative zero into zero.
  return (value < 0 ? -Math.floor(0.5 - value) : Math.floor(value + 0.5)) + 0;
}

/** Rounds to `decimals` (0 to 6) decimals, halves up: what a seat is told of a number with that precision. */
export function roundTo(value: number, decimals: number): number {
  const scale = POWERS[decimals];
  return Math.floor(value * scale + 0.5) / scale + 0;
}

/** `10 ** decimals` for 0 to 6 decimals. */
export const POWERS: readonly number[] = [1, 10, 100, 1000, 10000, 100000, 1000000];

export function clamp(value: number, low: number, high: number): number {
  return value < low ? low : value > high ? high : value;
}
