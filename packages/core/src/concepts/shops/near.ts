import type { World } from '../../world/world.js';
import { isReached } from '../interactions/index.js';
import { bodyRadius, placeOf } from '../movement/index.js';

/** A place where one trades: at any actor of a kind, or everywhere. */
export interface Stall {
  /** The kind of actor that it is found at; -1 where it is open everywhere. */
  readonly at: number;
  readonly reach: number;
}

/** Whether somebody is near enough to trade: up, and within reach of an actor of its kind, with no wall between. */
export function standsNear(world: World, actor: number, { at, reach }: Stall): boolean {
  const own = world.actors.rowOf(actor);
  if (own < 0) return false;
  if (at < 0) return true;
  const types = world.actors.column('type').data;
  const here = placeOf(world, own);
  // Most are far off: that is asked before walls are.
  const isFar = (row: number) => {
    const there = placeOf(world, row);
    const most = reach + bodyRadius(world, own) + bodyRadius(world, row);
    return Math.abs(there.x - here.x) > most || Math.abs(there.y - here.y) > most;
  };
  for (let row = 0; row < world.actors.high; row++) {
    if (types[row] !== at || world.actors.live[row] === 0 || isFar(row)) continue;
    if (isReached(world, actor, world.actors.handle(row), { reach, sight: true }) === true) return true;
  }
  return false;
}
