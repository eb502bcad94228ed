import { z } from 'zod';
import { toGrid } from '../../math/grid.js';
import { word, finite } from '../../ruleset/fields.js';
import type { World } from '../../world/world.js';
import { distanceOf } from '../../math/distance.js';
import { actors, counts, typeOf, WHO } from '../actors/index.js';
import { arena } from '../arena/index.js';
import { isDown } from '../states/index.js';
import { onGrid } from './ground.js';
import { moveStraight, pushOut } from './system.js';
import { bodyRadius } from './radius.js';
import { movement } from './state.js';
import { described } from '../../ruleset/described.js';

export const axis = () => finite().min(-1, 'A direction goes from -1 to 1.').max(1, 'A direction goes from -1 to 1.');

export const nearby = z.strictObject({
  nearby: described(finite().min(0, 'A radius is not negative.'), { begins: 200 }),
  who: described(word(WHO, { foes: 'opponents', allies: 'allies', crew: 'crew', others: 'others', anyone: 'anyone' }), {
    absent: 'anyone',
  }).optional(),
});

export type Nearby = z.infer<typeof nearby>;

/** Sends a body to a point: it goes straight there and stops. */
export function sendTo(world: World, actor: number, x: number, y: number): void {
  const row = world.actors.rowOf(actor);
  const { table } = movement.in(world);
  const { width, height } = arena.of(world.rules);
  headFor(world, actor, 0, 0);
  const inside = (value: number, most: number) => toGrid(Math.min(most, Math.max(0, value)));
  table.cells.goalX[row] = inside(x, width);
  table.cells.goalY[row] = inside(y, height);
  table.cells.toGoal[row] = 1;
}

/** Has a body go in a direction until it is told otherwise; 0, 0 stops it. */
export function headFor(world: World, actor: number, x: number, y: number): void {
  const row = world.actors.rowOf(actor);
  const { table } = movement.in(world);
  table.cells.headingX[row] = toGrid(x);
  table.cells.headingY[row] = toGrid(y);
  table.cells.toGoal[row] = 0;
  face(world, row, x, y);
  if (world.cause !== 0) table.cells.cause[row] = world.cause;
}

export function isNewHeading(world: World, row: number, x: number, y: number): boolean {
  const { table } = movement.in(world);
  return table.cells.headingX[row] !== toGrid(x) || table.cells.headingY[row] !== toGrid(y);
}

/** The serial of the input that set an actor moving, for what it runs into; 0 where none did. */
export function headingCause(world: World, row: number): number {
  return movement.in(world).table.cells.cause[row];
}

/** Puts an actor somewhere, out of walls and inside the arena. */
export function placeActor(world: World, row: number, x: number, y: number): void {
  const { table } = movement.in(world);
  table.cells.x[row] = toGrid(x);
  table.cells.y[row] = toGrid(y);
  movement.in(world).near.spoil();
  pushOut(world, movement.in(world), row);
}

/** Where an actor stands. */
export function placeOf(world: World, row: number): { readonly x: number; readonly y: number } {
  const { table } = movement.in(world);
  return { x: table.cells.x[row], y: table.cells.y[row] };
}

/**
 * Where an actor begins, and comes back to: of the start points of its team, or of those for everybody where it has none, the
 * one on which nobody stands that is farthest from the nearest other player. Of those that are as far, the first. Where
 * somebody stands on all of them, the one that is farthest; where there are none, the middle.
 */
export function startPoint(world: World, row: number): { x: number; y: number } {
  const { starts, width, height } = arena.of(world.rules);
  const team = world.rules.chapters.get('teams')?.ids[actors.in(world).table.cells.team[row]];
  const own = starts.filter((start) => start.team !== undefined && start.team === team);
  const fit = own.length > 0 ? own : starts.filter((start) => start.team === undefined);
  if (fit.length === 0) return { x: width / 2, y: height / 2 };
  const others = bodiesBeside(world, row);
  const players = others.filter((other) => typeOf(world, other).kind === 'player');
  const far = fit.map((point) => gapTo(world, point, players));
  const free = fit.map((point) => gapTo(world, point, others) > bodyRadius(world, row));
  const anyFree = free.includes(true);
  let best = -1;
  far.forEach((gap, i) => {
    if ((free[i] || !anyFree) && (best < 0 || gap > far[best])) best = i;
  });
  return fit[best];
}

/** The rows of all others that are up and have a will of their own. */
function bodiesBeside(world: World, row: number): readonly number[] {
  const rows: number[] = [];
  for (const other of world.actors.rows())
    if (other !== row && typeOf(world, other).kind !== 'prop' && !isDown(world, other)) rows.push(other);
  return rows;
}

/** How far a point is from the nearest body. */
function gapTo(world: World, point: { readonly x: number; readonly y: number }, others: readonly number[]): number {
  world.lookThrough(others.length);
  return others.reduce((least, other) => Math.min(least, distanceOf(point, placeOf(world, other)) - bodyRadius(world, other)), Infinity);
}

/** Turns an actor to look in a direction. Nothing where there is none. */
export function face(world: World, row: number, dx: number, dy: number): void {
  const length = Math.sqrt(dx * dx + dy * dy);
  if (length === 0) return;
  const { table } = movement.in(world);
  table.cells.facingX[row] = onGrid(dx / length);
  table.cells.facingY[row] = onGrid(dy / length);
}

/** Where an actor looks. */
export function facingOf(world: World, row: number): { readonly x: number; readonly y: number } {
  const { table } = movement.in(world);
  return { x: table.cells.facingX[row], y: table.cells.facingY[row] };
}

/** Whether an actor is heading somewhere of its own will. */
export function isHeading(world: World, row: number): boolean {
  const { table } = movement.in(world);
  return table.cells.headingX[row] !== 0 || table.cells.headingY[row] !== 0 || table.cells.toGoal[row] === 1;
}

/** Moves an actor straight away from another (or nearer, below 0, but not past it), stopped by walls. */
export function push(world: World, actor: number, from: number, distance: number): void {
  const row = world.actors.rowOf(actor);
  const other = world.actors.rowOf(from);
  if (row < 0 || other < 0 || row === other) return;
  const at = placeOf(world, row);
  const origin = placeOf(world, other);
  const dx = at.x - origin.x;
  const dy = at.y - origin.y;
  const length = Math.sqrt(dx * dx + dy * dy);
  if (length === 0) return;
  const gap = Math.max(0, length - bodyRadius(world, row) - bodyRadius(world, other));
  const way = Math.max(distance, -gap);
  moveStraight(world, movement.in(world), row, (dx / length) * way, (dy / length) * way);
}

/** What it costs to find a body near by, in rows that are looked through. */
const ROWS_OF_BODY = 8;

/** The actors whose body touches a circle and that are not down, by their turns in this tick. */
export function actorsWithin(world: World, x: number, y: number, radius: number): readonly number[] {
  // Out of steps, there is nobody to be found.
  if (!world.lookThrough(0)) return [];
  const found = movement.in(world).near.touching(world, x, y, radius);
  return world.lookThrough(found.length * ROWS_OF_BODY) ? world.turns.sort(found, (row) => world.actors.handle(row)) : [];
}

/** Actors whose body touches a circle around one, that one left out. */
export function actorsNear(world: World, centre: number, { nearby: radius, who = 'anyone' }: Nearby): readonly number[] {
  const own = world.actors.rowOf(centre);
  if (own < 0) return [];
  const at = placeOf(world, own);
  return actorsWithin(world, at.x, at.y, radius)
    .filter((row) => row !== own && counts(world, own, row, who))
    .map((row) => world.actors.handle(row));
}
