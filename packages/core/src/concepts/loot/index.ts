import { reference } from '../../ruleset/fields.js';
import { defineConcept } from '../../world/concept.js';
import { compileLoot } from './compile.js';
import { dropFrom } from './deliver.js';
import { events } from './events.js';
import { findings } from './findings.js';
import { roomStreaksTable, streaksTable } from './tables.js';
import { loot } from './state.js';
import { raised } from '../attributes/consequences.js';
import { lootChapter, schema } from './schema.js';

export { loot } from './state.js';
export { type CompiledLoot, type Drop, type LootTable, type Quantity, type WeightedDrop, type What } from './compile.js';
export { dropFrom, giveTo } from './deliver.js';
export { amountWords, percent } from './events.js';
export { MOST_ROLLS, openTable, type Opener, quantityNow, weigh, wholeOf } from './roll.js';
export { type AlwaysJson, type LootEntryJson, type LootTableJson, MOST_LOOT, ROLLED } from './schema.js';
export { dryOf } from './streaks.js';

/** Loot: tables of what may drop, by weight. Whoever it is rolled for has luck of their own, and bad luck may have an end. */
export const lootConcept = defineConcept(loot, {
  consequences: (rules) =>
    lootChapter
      .of(rules)
      .flatMap(({ always, entries }) => [...always, ...entries].flatMap(({ gives }) => (gives === undefined ? [] : [raised(gives)]))),
  alsoCalled: { parts: { drops: ['loot'], items: ['entries'] } },
  // What is in a table, and how likely, is told to nobody.
  sections: {
    loot: {
      kind: 'chapter',
      title: 'Loot',
      entry: schema,
      unused: 'no foe drops it, no container holds it, no other table has it. Have an action roll it, or delete it.',
      absent: 'Nothing that comes into play rolls it.',
      ownConditions: true,
      parts: (rules, table) => {
        const { always = [], entries = [] } = lootChapter.find(rules, table) ?? {};
        return [...always, ...entries].map(({ id }) => ({ at: `rows/${id}`, event: events.lootRolled.name, part: id }));
      },
      secret: () => true,
    },
  },
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
  workbench: async () => (await import('../workbenches.js')).loot,
});
