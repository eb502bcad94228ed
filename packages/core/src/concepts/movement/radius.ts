import type { World } from '../../world/world.js';
import { movement } from './state.js';

export function bodyRadius(world: World, row: number): number {
  const radius = movement.in(world).radii[world.actors.cells.type[row]];
  return typeof radius === 'number' ? radius : Math.max(1, radius.data[row]);
}
