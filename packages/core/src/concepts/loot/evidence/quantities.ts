import type { FormulaFunction } from '../../../formula/index.js';
import { type Quantity } from '../compile.js';
import { MOST_ROLLS } from '../roll.js';

/** How likely each count is. */
export type Counts = readonly { readonly count: number; readonly p: number }[];

type Now = (formula: FormulaFunction) => number;

/** The counts that a quantity comes to when it is rounded, up to a most. */
export function countsOf(quantity: Quantity, now: Now, most = MOST_ROLLS): Counts {
  const fixed = quantity.constant ?? (quantity.formula && now(quantity.formula));
  const clamped = (value: number) => Math.max(0, Math.min(most, Math.floor(value + 0.5)));
  if (fixed !== undefined) return [{ count: clamped(fixed), p: 1 }];
  const { least, most: top, whole } = quantity;
  const by = new Map<number, number>();
  const add = (count: number, p: number) => by.set(count, (by.get(count) ?? 0) + p);
  if (whole) {
    const [from, to] = [Math.ceil(least), Math.floor(top)];
    for (let value = from; value <= to; value++) add(clamped(value), 1 / (to - from + 1));
  } else if (top === least) add(clamped(least), 1);
  else
    for (let value = Math.floor(least + 0.5); value <= Math.floor(top + 0.5); value++) {
      const part = Math.min(top, value + 0.5) - Math.max(least, value - 0.5);
      if (part > 0) add(clamped(value), part / (top - least));
    }
  return [...by].map(([count, p]) => ({ count, p }));
}

export const meanOf = (counts: Counts): number => counts.reduce((sum, { count, p }) => sum + count * p, 0);

/** The mean of a quantity that is not rounded, never below nothing, and how likely it is nothing. */
export function amountOf(quantity: Quantity, now: Now): { readonly mean: number; readonly none: number } {
  const fixed = quantity.constant ?? (quantity.formula && now(quantity.formula));
  if (fixed !== undefined) return { mean: Math.max(0, fixed), none: fixed > 0 ? 0 : 1 };
  const { least, most, whole } = quantity;
  if (whole) {
    const counts = countsOf(quantity, now, Number.MAX_SAFE_INTEGER);
    return { mean: meanOf(counts), none: counts.find(({ count }) => count === 0)?.p ?? 0 };
  }
  if (most <= 0) return { mean: 0, none: 1 };
  if (least >= 0) return { mean: (least + most) / 2, none: most === 0 ? 1 : 0 };
  return { mean: (most * most) / 2 / (most - least), none: -least / (most - least) };
}
