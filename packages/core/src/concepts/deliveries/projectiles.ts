import { cosine, sine } from '../../math/angles.js';
import { World } from '../../world/world.js';
import { hit, miss } from '../abilities/hits.js';
import { abilities } from '../abilities/state.js';
import { counts } from '../actors/index.js';
import { arena, crossing } from '../arena/index.js';
import { actorsWithin, bodyRadius, onGrid, placeOf } from '../movement/index.js';
import { isDown } from '../states/index.js';
import type { Projectile } from './compile.js';
import { deliveries, type Deliveries } from './state.js';
import { isRoomFor } from './room.js';

/** Whom projectiles have gone through is remembered this often: past that one ends in whom it hits. */
const MOST_STRIKES = 20_000;

interface Point {
  readonly x: number;
  readonly y: number;
}

/**
 * Sends an ability's projectiles on their way, spread evenly around a direction: the first and the last at the ends of the
 * spread. A full circle has no ends: it is cut into equal parts, and one flies in the direction itself.
 */
export function launchProjectiles(world: World, index: number, kind: Projectile, user: number, direction: Point, target: number): void {
  const state = deliveries.in(world);
  const parties = World.alone(user);
  const { x, y } = placeOf(world, world.actors.rowOf(user));
  const speed = Math.max(0, kind.speed.run(world, parties));
  const ticks = Math.max(1, Math.ceil(kind.lifetime.run(world, parties) * world.rules.tickRate - 1e-9));
  for (let i = 0; i < kind.count; i++) {
    if (!isRoomFor(world, state.projectiles, index)) return;
    const turn = turnOf(kind, i);
    const [c, s] = [cosine(turn), sine(turn)];
    state.projectiles.insert({
      ability: index,
      user,
      x,
      y,
      wayX: direction.x * c - direction.y * s,
      wayY: direction.x * s + direction.y * c,
      speed,
      ends: world.tick + ticks,
      pierce: kind.pierce,
      target,
      cause: world.cause,
    });
  }
}

/** By how much the projectile of a number is turned away from the direction, in degrees. */
function turnOf({ count, spread }: Projectile, i: number): number {
  if (count === 1) return 0;
  return spread >= 360 ? (i * 360) / count : (i / (count - 1) - 0.5) * spread;
}

/** A tick of all that flies, by the turns of those who sent it on its way. */
export function flyAll(world: World): void {
  const state = deliveries.in(world);
  const { projectiles, flying } = state;
  if (projectiles.count === 0) return;
  for (const handle of world.turns.rows(projectiles)) {
    const row = projectiles.rowOf(handle);
    if (row >= 0) world.since(flying.cause[row], () => fly(world, state, row));
  }
}

function fly(world: World, state: Deliveries, row: number): void {
  const { flying, projectiles } = state;
  const ability = abilities.of(world.rules).list[flying.ability[row]];
  // An edit may have made something else of the ability: what flies of the old one is gone.
  if (ability?.deliver?.by !== 'projectile') return end(state, row);
  const kind = ability.deliver;
  // Where the tick has no steps left, it hangs where it is: it must go through no wall.
  if (!world.goesOn(ability.rule) || !world.lookThrough(arena.of(world.rules).walls.length)) return;
  if (kind.homing) turnTowards(world, state, row, kind);
  const from = { x: flying.x[row], y: flying.y[row] };
  const way = flying.speed[row] / world.rules.tickRate;
  const to = { x: from.x + flying.wayX[row] * way, y: from.y + flying.wayY[row] * way };
  const stop = wallAt(world, from, to, kind.radius);
  const user = flying.user[row];
  const handle = projectiles.handle(row);
  for (const { other, at } of metOn(world, state, row, kind, from, to)) {
    if (at > stop) break;
    const target = world.actors.handle(other);
    remember(state, handle, target);
    const last = flying.pierce[row] <= 0 || state.strikes.count >= MOST_STRIKES;
    if (last) end(state, row);
    else flying.pierce[row]--;
    hit(world, ability, user, target);
    // What follows from a hit may have taken it away.
    if (projectiles.rowOf(handle) < 0) return;
  }
  flying.x[row] = onGrid(to.x);
  flying.y[row] = onGrid(to.y);
  const { width, height } = arena.of(world.rules);
  const outside = to.x < 0 || to.y < 0 || to.x > width || to.y > height;
  if (stop > 1 && !outside && flying.ends[row] > world.tick) return;
  const missed = !hasHit(state, handle);
  end(state, row);
  if (missed) miss(world, ability, user);
}

/** How far along its way it meets a wall: a share of the way; more than 1 where it does not. */
function wallAt(world: World, from: Point, to: Point, radius: number): number {
  let first = 2;
  for (const wall of arena.of(world.rules).walls) {
    const at = crossing(wall, radius, from.x, from.y, to.x, to.y);
    if (at !== undefined && at < first) first = at;
  }
  return first;
}

/** Whom it meets on its way, in the order in which it meets them. Nobody is met twice by one projectile. */
function metOn(
  world: World,
  state: Deliveries,
  row: number,
  kind: Projectile,
  from: Point,
  to: Point,
): readonly { other: number; at: number }[] {
  const handle = state.projectiles.handle(row);
  const user = world.actors.rowOf(state.flying.user[row]);
  const dx = to.x - from.x;
  const dy = to.y - from.y;
  const square = dx * dx + dy * dy;
  const near = actorsWithin(world, (from.x + to.x) / 2, (from.y + to.y) / 2, Math.sqrt(square) / 2 + kind.radius);
  const met: { other: number; at: number }[] = [];
  for (const other of near) {
    if (other === user || !isFor(world, user, other, kind)) continue;
    const place = placeOf(world, other);
    const reach = kind.radius + bodyRadius(world, other);
    const along = square === 0 ? 0 : ((place.x - from.x) * dx + (place.y - from.y) * dy) / square;
    const at = along < 0 ? 0 : along > 1 ? 1 : along;
    const offX = from.x + dx * at - place.x;
    const offY = from.y + dy * at - place.y;
    if (offX * offX + offY * offY > reach * reach || wasHit(world, state, handle, world.actors.handle(other))) continue;
    met.push({ other, at });
  }
  return met.sort((a, b) => a.at - b.at);
}

/** Whether it meets somebody. What was sent by one who has gone meets everybody that it can't be told apart from: anyone. */
function isFor(world: World, user: number, other: number, { who }: Projectile): boolean {
  return user < 0 ? who === 'anyone' : counts(world, user, other, who);
}

/** Turns it towards whom it was aimed at, or where that one is gone or there was none, the nearest that counts. */
function turnTowards(world: World, state: Deliveries, row: number, kind: Projectile): void {
  const { flying } = state;
  const from = { x: flying.x[row], y: flying.y[row] };
  let other = world.actors.rowOf(flying.target[row]);
  if (other >= 0 && (isDown(world, other) || wasHit(world, state, state.projectiles.handle(row), world.actors.handle(other)))) other = -1;
  if (other < 0) other = nearest(world, state, row, kind, from);
  if (other < 0) return;
  const to = placeOf(world, other);
  const dx = to.x - from.x;
  const dy = to.y - from.y;
  const length = Math.sqrt(dx * dx + dy * dy);
  if (length === 0) return;
  flying.wayX[row] = dx / length;
  flying.wayY[row] = dy / length;
}

function nearest(world: World, state: Deliveries, row: number, kind: Projectile, from: Point): number {
  const { flying, projectiles } = state;
  const user = world.actors.rowOf(flying.user[row]);
  const reach = flying.speed[row] * Math.max(0, (flying.ends[row] - world.tick) / world.rules.tickRate);
  let best = -1;
  let least = Infinity;
  for (const other of actorsWithin(world, from.x, from.y, reach)) {
    if (other === user || !isFor(world, user, other, kind)) continue;
    const { x, y } = placeOf(world, other);
    const apart = (x - from.x) * (x - from.x) + (y - from.y) * (y - from.y);
    if (apart >= least || wasHit(world, state, projectiles.handle(row), world.actors.handle(other))) continue;
    best = other;
    least = apart;
  }
  return best;
}

function remember({ strikes }: Deliveries, projectile: number, target: number): void {
  const row = strikes.add();
  strikes.cells.projectile[row] = projectile;
  strikes.cells.target[row] = target;
}

/** Whether it has hit somebody before; also where the tick has no steps left to find out. */
function wasHit(world: World, state: Deliveries, projectile: number, target: number): boolean {
  return !world.lookThrough(state.strikes.count) || findStrike(state, projectile, target);
}

function hasHit(state: Deliveries, projectile: number): boolean {
  return findStrike(state, projectile, undefined);
}

function findStrike({ strikes }: Deliveries, projectile: number, target: number | undefined): boolean {
  const { projectile: of, target: whom } = strikes.cells;
  for (const row of strikes.rows()) if (of[row] === projectile && (target === undefined || whom[row] === target)) return true;
  return false;
}

function end({ projectiles, strikes }: Deliveries, row: number): void {
  const handle = projectiles.handle(row);
  const of = strikes.cells.projectile;
  for (const at of strikes.rows()) if (of[at] === handle) strikes.remove(at);
  projectiles.remove(row);
}
