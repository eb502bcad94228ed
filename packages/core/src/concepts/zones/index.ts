import { labelOf } from '../../ruleset/rules.js';
import { defineConcept } from '../../world/concept.js';
import { placements } from '../arena/index.js';
import { findings } from './findings.js';
import { schema, type ZoneEntry } from './schema.js';
import { insideTable } from './tables.js';
import { zones } from './state.js';
import { colourOf, crossAll, followZones, spotsOf } from './system.js';
import { compileZone } from './compile.js';
import { events } from './events.js';

export { zones } from './state.js';
export type { ZoneEntry } from './schema.js';
export { isInZone } from './system.js';

/** Zones: stretches of the arena that do something to those who enter, stay and leave. Who is inside is said by their middle. */
export const zonesConcept = defineConcept(zones, {
  alsoCalled: { parts: { enterZone: ['onEnter'], leaveZone: ['onLeave'] } },
  sections: {
    zones: {
      kind: 'chapter',
      title: 'Zones',
      entry: schema,
      unused: 'the arena places it nowhere. Place it, or delete it.',
      absent: 'The arena places it nowhere.',
      ownConditions: true,
    },
  },
  *compileInParts(context) {
    const entries = context.entries<ZoneEntry>('zones');
    // Also those that nothing places: what is wrong in them is told all the same.
    const unplaced = yield* context.each('zones', entries, (entry, i) => compileZone(context, entry, {}, ['zones', i], []));
    return placements(context, 'zone').flatMap(({ index, thing }) => {
      if (!context.entry('zones', thing.zone)) return [];
      const i = context.index('zones', thing.zone);
      const own = thing.with as Partial<ZoneEntry> | undefined;
      const rules =
        own === undefined ? unplaced[i] : compileZone(context, entries[i], own, ['zones', i], ['arena', 'placed', index, 'with']);
      return [{ ...rules, index, thing }];
    });
  },
  tables: () => [insideTable],
  attach: (world, list) => ({
    list,
    byPlace: new Map(list.map((zone) => [zone.index, zone])),
    table: insideTable.in(world),
    spots: spotsOf(world, list),
  }),
  events,
  findings,
  lifecycle: { rulesAdopted: followZones },
  systems: { overlaps: crossAll },
  workbench: async () => (await import('../workbenches.js')).zones,
  display: (list, rules) =>
    list.map(({ id, index, thing: { x, y, radius, width, height } }) => ({
      id,
      label: labelOf(rules, 'zones', id),
      ...colourOf(rules, id),
      index,
      x,
      y,
      ...(radius !== undefined && { radius }),
      ...(width !== undefined && { width, height }),
    })),
});
