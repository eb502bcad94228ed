import { LAY_STEPS } from '../../world/budget.js';
import type { Table } from '../../world/table.js';
import type { World } from '../../world/world.js';
import { abilities } from '../abilities/state.js';
import { events as livesEvents } from '../lives/events.js';

/** At most so many projectiles are under way in an arena, and as many areas. */
export const MOST_SENT = 2000;

/**
 * Whether another projectile or area of an ability has room in a table, and the tick has steps left for it. Where there is no
 * room, that is said.
 */
export function isRoomFor(world: World, table: Table, index: number): boolean {
  const { id, rule } = abilities.of(world.rules).list[index];
  if (!world.spend(LAY_STEPS, rule)) return false;
  if (table.count < MOST_SENT) return true;
  world.emit(livesEvents.arenaFull, {}, { ability: id });
  return false;
}
