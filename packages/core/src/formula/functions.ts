import { pow } from '../math/power.js';
import { clamp, toWhole } from '../math/grid.js';

/** A function over plain numbers. `least` and `most` bound how many arguments it takes. */
export interface MathFunction {
  readonly least: number;
  readonly most: number;
  /** How it is called, for messages. */
  readonly usage: string;
  readonly run: (...args: number[]) => number;
}

/** Dividing by nothing gives nothing: formulas never yield infinities. */
export const divide = (a: number, b: number): number => (b === 0 ? 0 : a / b);
/** The remainder with the sign of the divisor, so that `-1 % 4` is 3; 0 where the divisor is 0. */
export const remainder = (a: number, b: number): number => (b === 0 ? 0 : a - b * Math.floor(a / b));

const fixed = (usage: string, count: number, run: (...args: number[]) => number): MathFunction => ({
  least: count,
  most: count,
  usage,
  run,
});

export const MATH_FUNCTIONS: Readonly<Record<string, MathFunction>> = {
  min: { least: 2, most: 8, usage: 'min(a, b)', run: (...all) => all.reduce((a, b) => (b < a ? b : a)) },
  max: { least: 2, most: 8, usage: 'max(a, b)', run: (...all) => all.reduce((a, b) => (b > a ? b : a)) },
  clamp: fixed('clamp(x, low, high)', 3, clamp),
  floor: fixed('floor(x)', 1, (x) => Math.floor(x)),
  ceil: fixed('ceil(x)', 1, (x) => Math.ceil(x)),
  round: fixed('round(x)', 1, toWhole),
  abs: fixed('abs(x)', 1, (x) => (x < 0 ? -x : x)),
  sqrt: fixed('sqrt(x)', 1, (x) => (x > 0 ? Math.sqrt(x) : 0)),
  pow: fixed('pow(x, y)', 2, pow),
  lerp: fixed('lerp(a, b, share)', 3, (a, b, share) => a + (b - a) * share),
};
