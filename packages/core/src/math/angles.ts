/**
 * Sine and cosine from pinned arithmetic: engines may differ in the last bits of their own. The angle is brought into an
 * eighth of a turn, where the Taylor series to the 15th power is exact to about 1e-15.
 */
const DEGREE = 0.017453292519943295;

function series(x: number, first: number, from: number): number {
  const square = x * x;
  let term = first;
  let sum = first;
  for (let n = from; n <= 17; n += 2) {
    term = (-term * square) / (n * (n + 1));
    sum += term;
  }
  return sum;
}

/** The sine of an angle in degrees. */
export function sine(degrees: number): number {
  const turned = degrees - Math.floor(degrees / 360) * 360;
  if (turned > 180) return -sine(360 - turned);
  const folded = turned > 90 ? 180 - turned : turned;
  return folded > 45 ? series((90 - folded) * DEGREE, 1, 1) : series(folded * DEGREE, folded * DEGREE, 2);
}

/** The cosine of an angle in degrees. */
export function cosine(degrees: number): number {
  return sine(degrees + 90);
}
