/** A point of the arena, in its units. */
export interface Point {
  readonly x: number;
  readonly y: number;
}

/** How far two points are apart. Only multiplication and the square root, which every engine rounds alike. */
export function distanceOf(a: Point, b: Point): number {
  return Math.sqrt((a.x - b.x) * (a.x - b.x) + (a.y - b.y) * (a.y - b.y));
}
