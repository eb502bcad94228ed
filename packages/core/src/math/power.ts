/**
 * Powers and logarithms from pinned arithmetic. `Math.pow` may differ in the last bit between engines and versions;
 * these use only + - * / and exact scaling by powers of two, so that two machines agree to the bit.
 *
 * Source of the series: log x = 2 artanh((x - 1) / (x + 1)); exp x = sum of x^n / n!.
 */
const LN2_HIGH = 0.6931471803691238;
const LN2_LOW = 1.9082149292705877e-10;
const SQRT2 = 1.4142135623730951;

function scaleByPowerOfTwo(value: number, exponent: number): number {
  let result = value;
  let left = exponent;
  while (left > 0) {
    const step = left > 30 ? 30 : left;
    result *= (1 << step) >>> 0;
    left -= step;
  }
  while (left < 0) {
    const step = left < -30 ? 30 : -left;
    result /= (1 << step) >>> 0;
    left += step;
  }
  return result;
}

/** Natural logarithm; 0 or less gives the most negative finite double, as formulas never see infinities. */
export function log(x: number): number {
  if (!(x > 0)) return -Number.MAX_VALUE;
  let mantissa = x;
  let exponent = 0;
  while (mantissa > SQRT2) {
    mantissa /= 2;
    exponent++;
  }
  while (mantissa < SQRT2 / 2) {
    mantissa *= 2;
    exponent--;
  }
  const t = (mantissa - 1) / (mantissa + 1);
  const square = t * t;
  let sum = 0;
  for (let n = 27; n >= 1; n -= 2) sum = sum * square + 1 / n;
  return exponent * LN2_HIGH + (2 * t * sum + exponent * LN2_LOW);
}

/** e to the x; overflow gives the largest finite double. */
export function exp(x: number): number {
  if (x > 709) return Number.MAX_VALUE;
  if (x < -745) return 0;
  const exponent = Math.floor(x / (LN2_HIGH + LN2_LOW) + 0.5);
  const rest = x - exponent * LN2_HIGH - exponent * LN2_LOW;
  let sum = 1;
  for (let n = 20; n >= 1; n--) sum = 1 + (sum * rest) / n;
  return scaleByPowerOfTwo(sum, exponent);
}

/** x to the y. Whole exponents up to 1024 are exact products; a negative x with a broken exponent gives 0. */
export function pow(x: number, y: number): number {
  if (y === 0) return 1;
  const whole = Math.floor(y);
  if (whole === y && whole <= 1024 && whole >= -1024) {
    let result = 1;
    let base = x;
    let left = whole < 0 ? -whole : whole;
    while (left > 0) {
      if (left % 2 === 1) result *= base;
      base *= base;
      left = Math.floor(left / 2);
    }
    return whole < 0 ? 1 / result : result;
  }
  // Halves are common in curves (level ^ 1.5) and a square root is exact to the last bit.
  if (x > 0 && whole + 0.5 === y && whole >= 0 && whole <= 64) return pow(x, whole) * Math.sqrt(x);
  return x > 0 ? exp(y * log(x)) : 0;
}
