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

export function slideX({ walls, width }: Ground, x: number, y: number, way: number, radius: number): number {
  return slide(walls, x, x + way, y, radius, radius, width - radius, true);
}

export function slideY({ walls, height }: Ground, x: number, y: number, way: number, radius: number): number {
  return slide(walls, y, y + way, x, radius, radius, height - radius, false);
}

/** One axis of a move: from `from` towards `to`, stopped by the arena's edge and by any wall in the way. */
function slide(
  walls: readonly Wall[],
  from: number,
  to: number,
  across: number,
  radius: number,
  low: number,
  high: number,
  alongX: boolean,
): number {
  let end = high < low ? (low + high) / 2 : clamp(to, low, high);
  for (const wall of walls) {
    const near = (alongX ? wall.x : wall.y) - radius;
    const far = (alongX ? wall.x + wall.width : wall.y + wall.height) + radius;
    const sideLow = (alongX ? wall.y : wall.x) - radius;
    const sideHigh = (alongX ? wall.y + wall.height : wall.x + wall.width) + radius;
    if (across <= sideLow || across >= sideHigh) continue;
    if (from <= near && end > near) end = near;
    else if (from >= far && end < far) end = far;
  }
  return onGrid(end);
}
