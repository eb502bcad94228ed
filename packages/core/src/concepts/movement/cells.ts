/** The side of a square of ground by which bodies and places are found, in arena units: a few bodies wide. */
const CELL = 64;

/** How many squares lie along a side of the arena. */
export const cellsAlong = (length: number): number => Math.max(1, Math.ceil(length / CELL));

/** In which of so many squares a coordinate is: the first or the last where it is beyond them. */
export function cellOf(value: number, count: number): number {
  const at = Math.floor(value / CELL);
  return at < 0 ? 0 : at >= count ? count - 1 : at;
}
