import { finite, reference } from '../../ruleset/fields.js';
import { isTold } from '../../ruleset/visible.js';
import { defineConcept } from '../../world/concept.js';
import { placeOf, Spots } from '../movement/index.js';
import { compilePickups } from './compile.js';
import { events } from './events.js';
import { findings } from './findings.js';
import { schema } from './schema.js';
import { pickupsTable, pickupsTakenTable, pickupsRefusedTable } from './tables.js';
import { pickups } from './state.js';
import { fadeAll, followArena, layAgain, layAll, layDown, recallTaken, takeTouched } from './system.js';

export { pickups } from './state.js';
export type { CompiledPickups, Pickup } from './compile.js';
export { GONE, type PickupEntry, SHAPES } from './schema.js';
export { MOST_LYING, layDown, countMade } from './system.js';

/** Pickups: things that lie in the arena and are taken by touch. One taker each, unless each player may take it once. */
export const pickupsConcept = defineConcept(pickups, {
  alsoCalled: { names: { collected: ['pickupTaken'], items: ['pickups'] }, parts: { items: ['pickups'] } },
  sections: {
    pickups: {
      kind: 'chapter',
      title: 'Pickups',
      entry: schema,
      unused: 'the arena does not place it, no spawner makes it and no action puts it down. Place it, or delete it.',
      absent: 'The arena does not place it, no spawner makes it and no action puts it down.',
      ownConditions: true,
    },
  },
  compileInParts: compilePickups,
  tables: () => [pickupsTable, pickupsTakenTable, pickupsRefusedTable],
  attach: (world, compiled) => ({
    ...compiled,
    table: pickupsTable.in(world),
    of: pickupsTable.in(world).cells,
    own: pickupsTakenTable.in(world),
    refused: pickupsRefusedTable.in(world),
    returnTimer: world.rules.registry.timer('pickups.return'),
    lying: { version: -1, spots: new Spots() },
  }),
  events,
  actions: {
    spawn: {
      label: 'put a pickup down',
      sentence: 'put {pickup} down at {to}',
      causes: (args) => [{ event: 'pickupAppeared', fields: { pickup: args['pickup'] } }],
      places: true,
      args: { pickup: reference('pickups'), x: finite().optional(), y: finite().optional() },
      compile: (args, context) => {
        const index = context.index('pickups', String(args['pickup']));
        return (world, actor) => {
          const here = placeOf(world, world.actors.rowOf(actor));
          layDown(world, index, Number(args['x'] ?? here.x), Number(args['y'] ?? here.y));
        };
      },
    },
  },
  findings,
  timers: { return: (world, _actor, placed) => layAgain(world, placed) },
  lifecycle: {
    worldStarted: layAll,
    rulesAdopted: followArena,
    actorSpawned: recallTaken,
  },
  systems: { timers: fadeAll, overlaps: takeTouched },
  workbench: async () => (await import('../workbenches.js')).pickups,
  display: ({ list }, rules) =>
    list.map(({ id, label, radius, shape, worth }) => ({
      id,
      label,
      radius,
      shape,
      ...(worth && isTold(rules, 'attributes', worth.attribute) && { gives: worth.attribute }),
    })),
});
