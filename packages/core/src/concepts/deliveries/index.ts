import { LAY_STEPS } from '../../world/budget.js';
import { defineConcept } from '../../world/concept.js';
import type { Table } from '../../world/table.js';
import type { World } from '../../world/world.js';
import type { Aim } from '../abilities/aim.js';
import { abilities } from '../abilities/index.js';
import { events as livesEvents } from '../lives/events.js';
import { placeOf } from '../movement/index.js';
import { landAll, layArea } from './areas.js';
import { flyAll, launchProjectiles } from './projectiles.js';
import { events } from './events.js';
import { areasTable, projectilesTable, strikesTable } from './tables.js';
import { abilityChapter } from '../abilities/schema.js';
import { deliveries } from './state.js';

export { deliveries } from './state.js';
export { DELIVERIES, type DeliveryEntry } from './schema.js';

/** At most so many projectiles are under way in an arena, and as many areas. */
export const MOST_SENT = 2000;

/** Deliveries: what abilities send on its way. Projectiles fly and meet whom they are for; areas land where they were aimed. */
export const deliveriesConcept = defineConcept(deliveries, {
  tables: (_, rules) => {
    const see = {
      column: 'ability',
      of: abilityChapter.of(rules).map((a) => a.see),
    };
    return [projectilesTable.under({ see }), strikesTable, areasTable.under({ see })];
  },
  attach: (world) => {
    const [projectiles, areas] = [projectilesTable.in(world), areasTable.in(world)];
    return { projectiles, flying: projectiles.cells, strikes: strikesTable.in(world), areas, ground: areas.cells };
  },
  events,
  systems: {
    abilities: (world) => {
      flyAll(world);
      landAll(world);
    },
  },
});

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
