import { distanceOf, type Point } from '../../math/distance.js';
import { toGrid } from '../../math/grid.js';
import { World } from '../../world/world.js';
import { counts } from '../actors/index.js';
import { arena, sees } from '../arena/index.js';
import { actorsWithin, bodyRadius, facingOf, placeOf } from '../movement/index.js';
import { isDown } from '../states/index.js';
import type { Ability } from './compile.js';
import type { AbilityRefusal } from './refusals.js';

/** What a player points at: a point in the arena, an actor, or nothing. */
export interface AimRequest {
  readonly x?: number | undefined;
  readonly y?: number | undefined;
  /** An actor's row or its name. */
  readonly target?: number | string | undefined;
}

/** What a use is aimed at: a point, or for a direction or a cone a direction of length 1; and whom. */
export interface Aim {
  readonly x: number;
  readonly y: number;
  /** 0 where it is aimed at nobody in particular. */
  readonly target: number;
}

/** Works out what a use is aimed at, or why it can't be. What is not said is taken from where its user looks and who is near. */
export function aimOf(world: World, ability: Ability, actor: number, request: AimRequest): Aim | AbilityRefusal {
  const row = world.actors.rowOf(actor);
  const at = placeOf(world, row);
  switch (ability.target.at) {
    case 'self':
      return { ...at, target: actor };
    case 'actor':
      return actorAim(world, ability, row, request);
    case 'nearest':
      return targetsNear(world, ability, row).length === 0 ? { reason: 'noTarget' } : { ...at, target: 0 };
    case 'point':
      return pointAim(world, ability, row, request);
    case 'direction':
    case 'cone': {
      const point = pointOf(world, request);
      const ahead = facingOf(world, row);
      if (!point) return { ...ahead, target: 0 };
      const length = distanceOf(point, at);
      return length === 0
        ? { ...ahead, target: 0 }
        : { x: toGrid((point.x - at.x) / length), y: toGrid((point.y - at.y) / length), target: 0 };
    }
  }
}

/** Where a request points: its point, or its target's place. */
function pointOf(world: World, { x, y, target }: AimRequest): Point | undefined {
  if (x !== undefined && y !== undefined) return { x, y };
  const row = target === undefined ? -1 : rowOfTarget(world, target);
  return row < 0 ? undefined : placeOf(world, row);
}

function rowOfTarget(world: World, target: number | string): number {
  const { live, high } = world.actors;
  if (typeof target === 'number') return target < high && live[target] === 1 ? target : -1;
  for (let row = 0; row < high; row++) if (live[row] === 1 && world.nameOf(world.actors.handle(row)) === target) return row;
  return -1;
}

function actorAim(world: World, ability: Ability, row: number, { target }: AimRequest): Aim | AbilityRefusal {
  if (target === undefined) {
    const [nearest] = targetsNear(world, ability, row);
    return nearest === undefined ? { reason: 'noTarget' } : { ...placeOf(world, nearest), target: world.actors.handle(nearest) };
  }
  const other = rowOfTarget(world, target);
  if (other < 0) return { reason: 'targetGone' };
  return actorRefusal(world, ability, row, other) ?? { ...placeOf(world, other), target: world.actors.handle(other) };
}

/** What keeps an ability from being used on somebody: asked when it is begun, and again when its cast is over. */
export function actorRefusal(world: World, ability: Ability, row: number, other: number): AbilityRefusal | undefined {
  const { who, sight, range } = ability.target;
  if (!counts(world, row, other, who)) return { reason: 'notATarget' };
  if (isDown(world, other)) return { reason: 'targetGone' };
  const reach = range!.run(world, World.alone(world.actors.handle(row)));
  const [from, to] = [placeOf(world, row), placeOf(world, other)];
  const distance = Math.max(0, distanceOf(from, to) - bodyRadius(world, other));
  if (distance > reach) return { reason: 'outOfRange', range: reach, distance };
  return sight && !sees(world, from, to) ? { reason: 'outOfSight' } : undefined;
}

function pointAim(world: World, { target }: Ability, row: number, request: AimRequest): Aim | AbilityRefusal {
  const ground = arena.of(world.rules);
  const at = placeOf(world, row);
  const reach = target.range!.run(world, World.alone(world.actors.handle(row)));
  const point = pointOf(world, request);
  if (!point) {
    const { x, y } = facingOf(world, row);
    const inside = (value: number, most: number) => toGrid(Math.min(most, Math.max(0, value)));
    return { x: inside(at.x + x * reach, ground.width), y: inside(at.y + y * reach, ground.height), target: 0 };
  }
  const { x, y } = point;
  if (x < 0 || y < 0 || x > ground.width || y > ground.height) return { reason: 'outOfArena' };
  const distance = distanceOf(at, point);
  if (distance > reach + 1e-6) return { reason: 'outOfRange', range: reach, distance };
  if (target.sight && !sees(world, at, point)) return { reason: 'outOfSight' };
  return { x: toGrid(x), y: toGrid(y), target: 0 };
}

/** The rows within an ability's range that count for it, nearest first; of two as near, the one whose turn in this tick comes first. */
export function targetsNear(world: World, { target }: Ability, row: number): readonly number[] {
  const at = placeOf(world, row);
  const reach = target.range!.run(world, World.alone(world.actors.handle(row)));
  return actorsWithin(world, at.x, at.y, reach)
    .filter((other) => counts(world, row, other, target.who) && (!target.sight || sees(world, at, placeOf(world, other))))
    .map((other) => ({ other, distance: distanceOf(at, placeOf(world, other)) }))
    .sort((a, b) => a.distance - b.distance)
    .map(({ other }) => other);
}

/** The rows in a cone before an actor that count, nearest first. A body counts where its middle lies within the angle. */
export function targetsInCone(world: World, ability: Ability, row: number, direction: Point): readonly number[] {
  const at = placeOf(world, row);
  return targetsNear(world, ability, row).filter((other) => {
    const to = placeOf(world, other);
    const distance = distanceOf(at, to);
    return distance === 0 || ((to.x - at.x) * direction.x + (to.y - at.y) * direction.y) / distance >= ability.target.edge - 1e-9;
  });
}
