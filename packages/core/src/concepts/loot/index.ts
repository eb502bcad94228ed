import { reference } from '../../ruleset/fields.js';
import { type Concept, defineConcept } from '../../world/concept.js';
import type { Column } from '../../world/table.js';
import { type CompiledLoot, compileLoot } from './compile.js';
import { dropFrom } from './deliver.js';
import { events } from './events.js';
import { findings } from './findings.js';
import { schema } from './schema.js';
import type { TableOf } from '../../world/define-table.js';
import { roomStreaksTable, streaksTable } from './tables.js';

export { type CompiledLoot, type Drop, type LootTable, type Quantity, type WeightedDrop, type What } from './compile.js';
export { dropFrom, giveTo } from './deliver.js';
export { amountWords, percent } from './events.js';
export { MOST_ROLLS, openTable, type Opener, quantityNow, weigh, wholeOf } from './roll.js';
export { type AlwaysJson, type LootEntryJson, type LootTableJson, MOST_LOOT, ROLLED } from './schema.js';
export { dryOf } from './streaks.js';

interface Loot extends CompiledLoot {
  /** By table: the column of its streak, where it has one. */
  readonly streaks: readonly (Column | undefined)[];
  readonly room: TableOf<typeof roomStreaksTable>;
}

/** Loot: tables of what may drop, by weight. Whoever it is rolled for has luck of their own, and bad luck may have an end. */
export const loot: Concept<CompiledLoot, Loot> = defineConcept<CompiledLoot, Loot>({
  id: 'loot',
  // What is in a table, and how likely, is told to nobody.
  sections: { loot: { kind: 'chapter', title: 'Loot', entry: schema, secret: () => true } },
  compileInParts: compileLoot,
  tables: ({ entries, players }) => [streaksTable.under(entries, { present: { column: 'type', of: players } }), roomStreaksTable],
  attach: (world, compiled) => ({
    ...compiled,
    streaks: streaksTable.columnsIn(world, compiled.entries),
    room: roomStreaksTable.in(world),
  }),
  events,
  actions: {
    drop: {
      label: 'roll a loot table',
      sentence: 'roll {table} where {to} is',
      causes: ({ table }) => ['lootRolled', 'lootFound'].map((event) => ({ event, fields: { table } })),
      args: { table: reference('loot') },
      compile: (args, context) => {
        const index = context.index('loot', String(args['table']));
        return (world, actor, { owner, source }) => dropFrom(world, index, actor, source === 0 ? owner : source);
      },
    },
  },
  findings,
});
