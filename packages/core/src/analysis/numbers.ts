import { ANY, parseFormula, rangeOf } from '../formula/index.js';

const NOTHING_KNOWN = { name: () => ANY, call: () => ANY };

/** The numbers of an amount: itself, what a formula comes to whoever asks, or the lower end of its luck. */
export function numbersIn(amount: unknown): readonly number[] {
  if (typeof amount === 'number') return [amount];
  if (typeof amount === 'string') {
    const { low, high } = rangeOf(parseFormula(amount), NOTHING_KNOWN);
    return low === high ? [low] : [];
  }
  const random = (amount as { readonly random?: readonly number[] } | undefined)?.random;
  return random ? random.slice(0, 1) : [];
}
