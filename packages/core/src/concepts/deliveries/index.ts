import { defineConcept } from '../../world/concept.js';
import { landAll } from './areas.js';
import { flyAll } from './projectiles.js';
import { events } from './events.js';
import { areasTable, projectilesTable, strikesTable } from './tables.js';
import { abilityChapter } from '../abilities/schema.js';
import { deliveries } from './state.js';

export { deliveries } from './state.js';
export { DELIVERIES, type DeliveryEntry } from './schema.js';
export { launch } from './system.js';
export { MOST_SENT, isRoomFor } from './room.js';

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
