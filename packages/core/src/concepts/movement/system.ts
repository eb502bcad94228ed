import { clamp } from '../../math/grid.js';
import type { Table } from '../../world/table.js';
import type { World } from '../../world/world.js';
import { actors } from '../actors/index.js';
import { attributes } from '../attributes/index.js';
import { arena, type Wall } from '../arena/index.js';

/** Movement's grip on a world. By actor type: the column of its speed, if it moves at all. */
export interface Movement {
  readonly table: Table;
  readonly speeds: readonly (string | undefined)[];
}

export function attachMovement(world: World): Movement {
  const types = actors.of(world.rules);
  return { table: world.table('bodies'), speeds: types.map((type) => type.speed) };
}

export function bodyRadius(world: World, row: number): number {
  const { radius } = actors.in(world).types[world.actors.column('type').data[row]];
  return typeof radius === 'number' ? radius : Math.max(1, attributes.in(world).table.column(radius).data[row]);
}

/** Positions lie on a grid of a thousandth: seats are told tenths, and sums of steps stay clean. */
const onGrid = (value: number) => Math.floor(value * 1000 + 0.5) / 1000;

/** Moves every body that is heading somewhere by one tick's way. Walls stop each axis on its own, so bodies slide along. */
export function moveAll(world: World, grip: Movement): void {
  const { table, speeds } = grip;
  const { live, high } = world.actors;
  const type = world.actors.column('type').data;
  const values = attributes.in(world).table;
  const speedCells = speeds.map((id) => (id === undefined ? undefined : values.column(id).data));
  const [xs, ys, headingX, headingY, toGoal] = ['x', 'y', 'headingX', 'headingY', 'toGoal'].map((name) => table.column(name).data);
  const ground = arena.of(world.rules);
  const perTick = 1 / world.rules.tickRate;
  const radii = actors.in(world).types.map((kind) => (typeof kind.radius === 'number' ? kind.radius : undefined));
  for (let row = 0; row < high; row++) {
    if (live[row] === 0) continue;
    // A body that has grown where it stands must not be left in a wall.
    if (radii[type[row]] === undefined) pushOut(world, grip, row);
    if (toGoal[row] === 1) headToGoal(grip, row, (speedCells[type[row]]?.[row] ?? 0) * perTick);
    const dx = headingX[row];
    const dy = headingY[row];
    if (dx === 0 && dy === 0) continue;
    const speed = speedCells[type[row]];
    if (speed === undefined || speed[row] <= 0) continue;
    const length = Math.sqrt(dx * dx + dy * dy);
    // A half-tilted stick moves at half speed; a diagonal is no faster than straight on.
    const step = (speed[row] * perTick) / (length > 1 ? length : 1);
    const radius = radii[type[row]] ?? bodyRadius(world, row);
    const x = xs[row];
    const y = ys[row];
    xs[row] = slide(ground.walls, x, x + dx * step, y, radius, radius, ground.width - radius, true);
    ys[row] = slide(ground.walls, y, y + dy * step, xs[row], radius, radius, ground.height - radius, false);
  }
}

/** Turns a body towards its goal, with a tilt that ends the last step there. */
function headToGoal(grip: Movement, row: number, step: number): void {
  const [x, y, headingX, headingY, goalX, goalY, toGoal] = ['x', 'y', 'headingX', 'headingY', 'goalX', 'goalY', 'toGoal'].map(
    (name) => grip.table.column(name).data,
  );
  const dx = goalX[row] - x[row];
  const dy = goalY[row] - y[row];
  const distance = Math.sqrt(dx * dx + dy * dy);
  if (distance < 0.05 || step <= 0) {
    if (distance < 0.05) toGoal[row] = 0;
    headingX[row] = headingY[row] = 0;
    return;
  }
  const tilt = Math.min(1, distance / step) / distance;
  headingX[row] = dx * tilt;
  headingY[row] = dy * tilt;
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

/** Brings a body that stands in a wall or outside the arena to the nearest free edge. */
export function pushOut(world: World, { table }: Movement, row: number): void {
  const { walls, width, height } = arena.of(world.rules);
  const radius = bodyRadius(world, row);
  const xs = table.column('x').data;
  const ys = table.column('y').data;
  const inside = (value: number, most: number) => onGrid(most < 2 * radius ? most / 2 : clamp(value, radius, most - radius));
  xs[row] = inside(xs[row], width);
  ys[row] = inside(ys[row], height);
  for (const wall of walls) {
    const left = xs[row] - (wall.x - radius);
    const right = wall.x + wall.width + radius - xs[row];
    const up = ys[row] - (wall.y - radius);
    const down = wall.y + wall.height + radius - ys[row];
    const least = Math.min(left, right, up, down);
    if (least <= 0) continue;
    if (least === left) xs[row] = inside(xs[row] - left, width);
    else if (least === right) xs[row] = inside(xs[row] + right, width);
    else if (least === up) ys[row] = inside(ys[row] - up, height);
    else ys[row] = inside(ys[row] + down, height);
  }
}
