import { clamp } from '../../math/grid.js';
import { positionOf } from '../../ruleset/rules.js';
import type { TableOf } from '../../world/define-table.js';
import type { Column } from '../../world/table.js';
import type { World } from '../../world/world.js';
import { actors } from '../actors/index.js';
import { attributes } from '../attributes/index.js';
import { arena } from '../arena/index.js';
import { noteMoving, states } from '../states/index.js';
import { onGrid, slideX, slideY, stepBody, stepLength } from './ground.js';
import { Near } from './near.js';
import { bodiesTable } from './tables.js';
import { bodyRadius } from './radius.js';

/** Movement's tables in a world. By actor type: the column of its speed, if it moves at all. */
export interface Movement {
  readonly table: TableOf<typeof bodiesTable>;
  readonly speeds: readonly (Column | undefined)[];
  /** By actor type: its radius where that is always the same, or the column that it stands in. */
  readonly radii: readonly (Column | number)[];
  /** Who is where, worked out from the places when it is asked. */
  readonly near: Near;
}

export function attachMovement(world: World): Movement {
  const types = actors.of(world.rules);
  const { cells } = attributes.in(world);
  const columnOf = (id: string) => cells[positionOf(world.rules, 'attributes', id)].value;
  return {
    table: bodiesTable.in(world),
    speeds: types.map(({ speed }) => (speed === undefined ? undefined : columnOf(speed))),
    radii: types.map(({ radius }) => (typeof radius === 'number' ? radius : columnOf(radius))),
    near: new Near(),
  };
}

/** Moves every body that is heading somewhere by one tick's way. Walls stop each axis on its own, so bodies slide along. */
export function moveAll(world: World, tables: Movement): void {
  const { table, speeds, radii } = tables;
  const { live, high } = world.actors;
  const type = world.actors.cells.type;
  const { x: xs, y: ys, headingX, headingY, toGoal } = table.cells;
  const doing = states.in(world);
  const { free, state } = doing.table.cells;
  const { idle, moving } = doing;
  const ground = arena.of(world.rules);
  const perTick = 1 / world.rules.tickRate;
  tables.near.spoil();
  for (let row = 0; row < high; row++) {
    if (live[row] === 0) continue;
    // A body that has grown where it stands must not be left in a wall.
    const kind = type[row];
    if (typeof radii[kind] !== 'number') pushOut(world, tables, row);
    const speed = free[row] === 1 ? (speeds[kind]?.data[row] ?? 0) * perTick : 0;
    if (toGoal[row] === 1) headToGoal(tables, row, speed);
    const dx = headingX[row];
    const dy = headingY[row];
    const moves = speed > 0 && (dx !== 0 || dy !== 0);
    if (moves) {
      const radius = bodyRadius(world, row);
      const step = stepLength(dx, dy, speed);
      // As stepBody does, without an object for each of a thousand bodies.
      xs[row] = slideX(ground, xs[row], ys[row], dx * step, radius);
      ys[row] = slideY(ground, xs[row], ys[row], dy * step, radius);
    }
    if (state[row] === (moves ? idle : moving)) noteMoving(world, doing, row, moves);
  }
}

/** Moves a body by a way at once, stopped by walls as if it had gone there. */
export function moveStraight(world: World, { table, near }: Movement, row: number, dx: number, dy: number): void {
  const radius = bodyRadius(world, row);
  const xs = table.cells.x;
  const ys = table.cells.y;
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
function headToGoal(tables: Movement, row: number, step: number): void {
  const { x, y, headingX, headingY, goalX, goalY, toGoal } = tables.table.cells;
  const dx = goalX[row] - x[row];
  const dy = goalY[row] - y[row];
  const distance = Math.sqrt(dx * dx + dy * dy);
  if (distance < 0.05 || step <= 0) {
    if (distance < 0.05) toGoal[row] = 0;
    headingX[row] = headingY[row] = 0;
    return;
  }
  const tilt = Math.min(1, distance / step) / distance;
  tables.table.cells.facingX[row] = onGrid(dx / distance);
  tables.table.cells.facingY[row] = onGrid(dy / distance);
  headingX[row] = dx * tilt;
  headingY[row] = dy * tilt;
}

/** Brings a body that stands in a wall or outside the arena to the nearest free edge. */
export function pushOut(world: World, { table }: Movement, row: number): void {
  const { walls, width, height } = arena.of(world.rules);
  const radius = bodyRadius(world, row);
  const xs = table.cells.x;
  const ys = table.cells.y;
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
