import type { World } from '../../world/world.js';
import type { Aim } from '../abilities/aim.js';
import { abilities } from '../abilities/state.js';
import { placeOf } from '../movement/index.js';
import { layArea } from './areas.js';
import { launchProjectiles } from './projectiles.js';

/** Sends an ability on its way to where it was aimed. */
export function launch(world: World, index: number, user: number, aim: Aim): void {
  const { deliver, target } = abilities.of(world.rules).list[index];
  const row = world.actors.rowOf(user);
  if (row < 0 || !deliver) return;
  const here = placeOf(world, row);
  const goal = world.actors.rowOf(aim.target) < 0 || target.at === 'self' ? aim : placeOf(world, world.actors.rowOf(aim.target));
  if (deliver.by === 'area')
    return layArea(world, index, deliver, user, ...(target.at === 'self' ? ([here.x, here.y] as const) : ([goal.x, goal.y] as const)));
  if (target.at === 'direction' || target.at === 'cone') return launchProjectiles(world, index, deliver, user, aim, aim.target);
  const dx = goal.x - here.x;
  const dy = goal.y - here.y;
  const length = Math.sqrt(dx * dx + dy * dy);
  launchProjectiles(world, index, deliver, user, length === 0 ? { x: 1, y: 0 } : { x: dx / length, y: dy / length }, aim.target);
}
