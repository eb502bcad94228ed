import { defineTable } from '../../world/define-table.js';
import { columnNames, defineEntryTable } from '../../world/entry-table.js';
import type { LootTableJson } from './schema.js';

/** How long bad luck has lasted, for each player and kept with them. */
export const streaksTable = defineEntryTable({
  name: 'streaks',
  title: 'Luck',
  extends: 'actors',
  columns: (table: LootTableJson) =>
    table.streak && {
      ...columnNames(table),
      kind: 'int',
      see: 'server',
      saved: true,
      label: `${table.label}: openings since its ${table.streak.entry}`,
      range: [0, 1_000_000],
    },
});

/** How long bad luck has lasted for what is rolled once for all. */
export const roomStreaksTable = defineTable({
  name: 'roomStreaks',
  columns: {
    loot: { kind: 'entry', chapter: 'loot', see: 'server' },
    dry: { kind: 'int', see: 'server' },
  },
});
