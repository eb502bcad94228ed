import type { World } from '../../world/world.js';
import { isReached } from '../interactions/index.js';

/** A place where one trades: at any actor of a kind, or everywhere. */
export interface Stall {
  /** The kind of actor that it is found at; -1 where it is open everywhere. */
  readonly at: number;
  readonly reach: number;
}

/** Whether somebody is near enough to trade: up, and within reach of an actor of its kind, with no wall between. */
export function standsNear(world: World, actor: number, { at, reach }: Stall): boolean {
  if (world.actors.rowOf(actor) < 0) return false;
  if (at < 0) return true;
  const types = world.actors.column('type').data;
  for (let row = 0; row < world.actors.high; row++)
    if (
      world.actors.live[row] === 1 &&
      types[row] === at &&
      isReached(world, actor, world.actors.handle(row), { reach, sight: true }) === true
    )
      return true;
  return false;
}
