import { grouped } from '../../ruleset/grouped.js';
import { defineConcept } from '../../world/concept.js';
import { placements } from '../arena/index.js';
import { findings } from './findings.js';
import { schema, type SpawnerEntry } from './schema.js';
import { spawnersTable } from './tables.js';
import { spawners } from './state.js';
import { begin, followSpawners, hear, makeAll } from './system.js';
import { compileSpawner } from './compile.js';
import { events } from './events.js';

export { spawners } from './state.js';
export { type SpawnerEntry, WHENS } from './schema.js';
export { NO_SPAWNERS, aliveOf } from './system.js';

/** Spawners: they make foes and pickups again and again, when a wave has fallen, or when something happens. */
export const spawnersConcept = defineConcept(spawners, {
  sections: {
    spawners: {
      kind: 'chapter',
      title: 'Spawners',
      entry: schema,
      unused: 'the arena places it nowhere. Place it, or delete it.',
      absent: 'The arena places it nowhere.',
      places: true,
    },
  },
  *compileInParts(context) {
    const entries = context.entries<SpawnerEntry>('spawners');
    const unplaced = yield* context.each('spawners', entries, (entry, i) => compileSpawner(context, entry, {}, ['spawners', i], []));
    const known = new Map(entries.map(({ id }, i) => [id, i] as const));
    const list = placements(context, 'spawner').flatMap(({ index, thing }) => {
      const i = known.get(thing.spawner);
      if (i === undefined) return [];
      const own = thing.with as Partial<SpawnerEntry> | undefined;
      const placed = ['arena', 'placed', index, 'with'];
      return [{ ...(own ? compileSpawner(context, entries[i], own, ['spawners', i], placed) : unplaced[i]), index, thing }];
    });
    const waiting = grouped(list, ({ event }) => event?.event);
    return { list, byPlace: new Map(list.map((spawner) => [spawner.index, spawner])), waiting };
  },
  tables: () => [spawnersTable],
  attach: (world, compiled) => ({ ...compiled, table: spawnersTable.in(world) }),
  events,
  findings,
  lifecycle: { worldStarted: (world) => spawners.in(world).list.forEach((spawner) => begin(world, spawner)), rulesAdopted: followSpawners },
  systems: { timers: makeAll },
  onEvent: (world, event) => hear(world, event),
  workbench: async () => (await import('../workbenches.js')).spawners,
  display: ({ list }) => list.map(({ id, index, thing: { x, y } }) => ({ id, index, x, y })),
});
