import { movedPositions, type Rules } from '../ruleset/rules.js';
import type { ColumnSpec, Table, TableContent } from './table.js';
import type { World } from './world.js';

/** Takes the tables of a world over into one with other rules: columns by name, entries by id, rows under their numbers. */
export function adoptTables(from: World, into: World): void {
  for (const [name, table] of into.tables) {
    const old = from.tables.get(name);
    if (!old) continue;
    table.restore(renamed(old.content(), table));
    for (const column of table.columns) {
      if (column.spec.kind === 'entry' && old.has(column.spec.name))
        moveEntries(table, column.spec, column.data as Int32Array, from.rules, into.rules);
    }
  }
}

/** A content in which columns stand under the names that they have in a table now. */
function renamed(content: TableContent, table: Table): TableContent {
  const columns = { ...content.columns };
  for (const { spec } of table.columns)
    for (const former of spec.formerly ?? []) if (columns[spec.name] === undefined && columns[former]) columns[spec.name] = columns[former];
  return { ...content, columns };
}

/** Rewrites positions of entries. A row whose entry is gone goes too, unless the column allows for none. */
function moveEntries(table: Table, spec: ColumnSpec, cells: Int32Array, before: Rules, after: Rules): void {
  const chapter = spec.chapter!;
  const moved = movedPositions(before, after, chapter);
  for (let row = 0; row < table.high; row++) {
    if (table.live[row] === 0 || cells[row] < 0) continue;
    const next = moved[cells[row]] ?? -1;
    if (next >= 0 || spec.optional) cells[row] = next;
    else table.remove(row);
  }
}
