import type { World } from '../../world/world.js';
import { launch } from '../deliveries/system.js';
import type { Aim } from './aim.js';
import { targetsInCone, targetsNear } from './aim.js';
import type { Ability } from './compile.js';
import { hit, miss } from './hits.js';

/** Has a use reach whom it is for: at once, or by what it sends on its way. */
export function deliverTo(world: World, ability: Ability, user: number, aim: Aim): void {
  if (ability.deliver) return launch(world, ability.index, user, aim);
  const row = world.actors.rowOf(user);
  if (row < 0 || !(ability.onHit ?? ability.onMiss)) return;
  const targets = reached(world, ability, row, aim).map((other) => world.actors.handle(other));
  if (targets.length === 0) return miss(world, ability, user);
  for (const target of targets) if (world.actors.rowOf(target) >= 0) hit(world, ability, user, target);
}

export function reached(world: World, ability: Ability, row: number, aim: Aim): readonly number[] {
  switch (ability.target.at) {
    case 'self':
      return [row];
    case 'actor':
      return world.actors.rowOf(aim.target) < 0 ? [] : [world.actors.rowOf(aim.target)];
    case 'nearest':
      return targetsNear(world, ability, row).slice(0, ability.target.count);
    case 'cone':
      return targetsInCone(world, ability, row, aim);
    default:
      return [];
  }
}
