import { clamp } from '../../math/grid.js';
import type { Table } from '../../world/table.js';
import type { World } from '../../world/world.js';
import { actors } from '../actors/index.js';
import { attributes } from '../attributes/index.js';
import { arena } from '../arena/index.js';
import { noteMoving, states } from '../states/index.js';
import { onGrid, slideX, slideY, stepBody, stepLength } from './ground.js';
import { Near } from './near.js';

/** Movement's grip on a world. By actor type: the column of its speed, if it moves at all. */
export interface Movement {
  readonly table: Table;
  readonly speeds: readonly (string | undefined)[];
  /** Who is where, worked out from the places when it is asked. */
  readonly near: Near;
}

export function attachMovement(world: World): Movement {
  const types = actors.of(world.rules);
  return { table: world.table('bodies'), speeds: types.map((type) => type.speed), near: new Near() };
}

export function bodyRadius(world: World, row: number): number {
  const { radius } = actors.in(world).types[world.actors.columns[0].data[row]];
  return typeof radius === 'number' ? radius : Math.max(1, attributes.in(world).table.column(radius).data[row]);
}

/** Moves every body that is heading somewhere by one tick's way. Walls stop each axis on its own, so bodies slide along. */
export function moveAll(world: World, grip: Movement): void {
  const { table, speeds } = grip;
  const { live, high } = world.actors;
  const type = world.actors.column('type').data;
  const values = attributes.in(world).table;
  const speedCells = speeds.map((id) => (id === undefined ? undefined : values.column(id).data));
  const [xs, ys, headingX, headingY, toGoal] = ['x', 'y', 'headingX', 'headingY', 'toGoal'].map((name) => table.column(name).data);
  const doing = states.in(world);
  const [free, state] = ['free', 'state'].map((name) => doing.table.column(name).data);
  const ground = arena.of(world.rules);
  const perTick = 1 / world.rules.tickRate;
  const radii = actors.in(world).types.map((kind) => (typeof kind.radius === 'number' ? kind.radius : undefined));
  grip.near.spoil();
  for (let row = 0; row < high; row++) {
    if (live[row] === 0) continue;
    // A body that has grown where it stands must not be left in a wall.
    if (radii[type[row]] === undefined) pushOut(world, grip, row);
    const speed = free[row] === 1 ? (speedCells[type[row]]?.[row] ?? 0) * perTick : 0;
    if (toGoal[row] === 1) headToGoal(grip, row, speed);
    const dx = headingX[row];
    const dy = headingY[row];
    const moves = speed > 0 && (dx !== 0 || dy !== 0);
    if (moves) {
      const radius = radii[type[row]] ?? bodyRadius(world, row);
      const step = stepLength(dx, dy, speed);
      // As stepBody does, without an object for each of a thousand bodies.
      xs[row] = slideX(ground, xs[row], ys[row], dx * step, radius);
      ys[row] = slideY(ground, xs[row], ys[row], dy * step, radius);
    }
    if (state[row] === (moves ? doing.idle : doing.moving)) noteMoving(world, doing, row, moves);
  }
}

/** Moves a body by a way at once, stopped by walls as if it had gone there. */
export function moveStraight(world: World, { table, near }: Movement, row: number, dx: number, dy: number): void {
  const radius = bodyRadius(world, row);
  const xs = table.column('x').data;
  const ys = table.column('y').data;
  const way = Math.sqrt(dx * dx + dy * dy);
  // In steps no longer than the body is thick, so that no wall is jumped.
  const steps = Math.max(1, Math.ceil(way / radius));
  for (let i = 0; i < steps; i++) {
    const next = stepBody(arena.of(world.rules), xs[row], ys[row], dx / (way || 1), dy / (way || 1), way / steps, radius);
    xs[row] = next.x;
    ys[row] = next.y;
  }
  near.spoil();
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
  grip.table.column('facingX').data[row] = onGrid(dx / distance);
  grip.table.column('facingY').data[row] = onGrid(dy / distance);
  headingX[row] = dx * tilt;
  headingY[row] = dy * tilt;
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
