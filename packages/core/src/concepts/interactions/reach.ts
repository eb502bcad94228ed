import { distanceOf } from '../../math/distance.js';
import type { World } from '../../world/world.js';
import { arena, isInSight } from '../arena/index.js';
import { bodyRadius, placeOf } from '../movement/index.js';
import { isDown } from '../states/index.js';

/** How far something reaches, and whether walls are in the way of it. */
export interface Reach {
  readonly reach: number;
  readonly sight: boolean;
}

/** How far two bodies are from each other, edge to edge; 0 where they touch. */
export function apart(world: World, one: number, other: number): number {
  const between = distanceOf(placeOf(world, one), placeOf(world, other));
  return Math.max(0, between - bodyRadius(world, one) - bodyRadius(world, other));
}

/** Whether a visitor can reach a thing: both are up, near enough, and no wall is between them where that matters. */
export function isReached(world: World, visitor: number, thing: number, { reach, sight }: Reach): true | 'down' | 'tooFar' | 'hidden' {
  const [own, other] = [world.actors.rowOf(visitor), world.actors.rowOf(thing)];
  if (own < 0 || other < 0 || isDown(world, own) || isDown(world, other)) return 'down';
  if (apart(world, own, other) > reach) return 'tooFar';
  const [a, b] = [placeOf(world, own), placeOf(world, other)];
  return sight && !isInSight(arena.of(world.rules), a.x, a.y, b.x, b.y) ? 'hidden' : true;
}
