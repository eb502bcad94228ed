import { clamp } from '../../math/grid.js';
import type { Wall } from '../arena/index.js';

/** Positions lie on a grid of a thousandth: seats are told tenths, and sums of steps stay clean. */
export const onGrid = (value: number) => Math.floor(value * 1000 + 0.5) / 1000;

/** The ground that bodies move on: its size and what stops them. */
export interface Ground {
  readonly width: number;
  readonly height: number;
  readonly walls: readonly Wall[];
}

/**
 * One tick's way of a body: what the world does with it, and what a seat expects of its own before it is told.
 * @param speed how far it gets in a tick at full tilt
 */
export function stepBody(
  ground: Ground,
  x: number,
  y: number,
  dx: number,
  dy: number,
  speed: number,
  radius: number,
): { x: number; y: number } {
  const step = stepLength(dx, dy, speed);
  const nextX = slideX(ground, x, y, dx * step, radius);
  return { x: nextX, y: slideY(ground, nextX, y, dy * step, radius) };
}

/** How far a unit of a heading gets in a tick. A half-tilted stick moves at half speed; a diagonal is no faster than straight on. */
export function stepLength(dx: number, dy: number, speed: number): number {
  const length = Math.sqrt(dx * dx + dy * dy);
  return speed / (length > 1 ? length : 1);
}

/** A move along the first axis, stopped by the arena's edge and by any wall in the way. */
export function slideX({ walls, width }: Ground, x: number, y: number, way: number, radius: number): number {
  let end = within(x + way, radius, width - radius);
  for (const wall of walls)
    if (y > wall.y - radius && y < wall.y + wall.height + radius) end = stopped(x, end, wall.x - radius, wall.x + wall.width + radius);
  return onGrid(end);
}

/** A move along the second axis, stopped likewise. */
export function slideY({ walls, height }: Ground, x: number, y: number, way: number, radius: number): number {
  let end = within(y + way, radius, height - radius);
  for (const wall of walls)
    if (x > wall.x - radius && x < wall.x + wall.width + radius) end = stopped(y, end, wall.y - radius, wall.y + wall.height + radius);
  return onGrid(end);
}

/** A body that is wider than the arena stands in its middle. */
function within(to: number, low: number, high: number): number {
  return high < low ? (low + high) / 2 : clamp(to, low, high);
}

/** Where a move ends that may meet a wall: on the side from which it came. */
function stopped(from: number, to: number, near: number, far: number): number {
  if (from <= near) return to > near ? near : to;
  return from >= far && to < far ? far : to;
}
