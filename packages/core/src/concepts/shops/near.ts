import type { World } from '../../world/world.js';
import { isReached } from '../interactions/index.js';
import { bodyRadius, movement, placeOf } from '../movement/index.js';

/** A place where one trades: at any actor of a kind, or everywhere. */
export interface Stall {
  /** The kind of actor that it is found at; -1 where it is open everywhere. */
  readonly at: number;
  readonly reach: number;
}

/** The rows of those who keep any of these stalls. */
export function keepersOf(world: World, stalls: readonly Stall[]): readonly number[] {
  const kinds = stalls.map(({ at }) => at);
  const types = world.actors.cells.type;
  const found: number[] = [];
  for (const row of world.actors.rows()) if (kinds.includes(types[row])) found.push(row);
  return found;
}

/** Of those who keep stalls: who is near enough to somebody for one of them, walls or not. */
export function keepersNear(world: World, row: number, keepers: readonly number[], farthest: number): readonly number[] {
  const { x, y } = movement.in(world).table.cells;
  const own = farthest + bodyRadius(world, row);
  const found: number[] = [];
  for (const keeper of keepers) {
    const most = own + bodyRadius(world, keeper);
    if (Math.abs(x[keeper] - x[row]) <= most && Math.abs(y[keeper] - y[row]) <= most) found.push(keeper);
  }
  return found;
}

/**
 * Whether somebody is near enough to trade: up, and within reach of an actor of its kind, with no wall between.
 * @param keepers those who may keep it, where they are known already
 */
export function standsNear(world: World, actor: number, stall: Stall, keepers = keepersOf(world, [stall])): boolean {
  const own = world.actors.rowOf(actor);
  if (own < 0) return false;
  if (stall.at < 0) return true;
  const types = world.actors.cells.type;
  const here = placeOf(world, own);
  const body = bodyRadius(world, own);
  for (const row of keepers) {
    if (types[row] !== stall.at) continue;
    // Most are far off: that is asked before walls are.
    const there = placeOf(world, row);
    const most = stall.reach + body + bodyRadius(world, row);
    if (Math.abs(there.x - here.x) > most || Math.abs(there.y - here.y) > most) continue;
    if (isReached(world, actor, world.actors.handle(row), { reach: stall.reach, sight: true }) === true) return true;
  }
  return false;
}
