import { hasSameIds, movedPositions, type Rules } from '../ruleset/rules.js';
import { type CellArray, type ColumnSpec, successorOf } from './columns.js';
import type { Table, TableContent } from './table.js';
import type { World } from './world.js';

/** Takes the tables of a world over into one with other rules: columns by name, entries by id, rows under their numbers. */
export function adoptTables(from: World, into: World): void {
  for (const [name, table] of into.tables) {
    const old = from.tables.get(name);
    if (!old) {
      table.followBase();
      continue;
    }
    // Most edits leave most tables as they are.
    const content = table.spec === old.spec ? undefined : renamed(old, table);
    if (content) table.restore(content);
    else table.become(old);
    for (const column of table.columns) {
      const { kind, chapter, name } = column.spec;
      if (kind !== 'entry' || (content && content.columns[name] === undefined)) continue;
      if (!hasSameIds(from.rules, into.rules, chapter!)) moveEntries(table, column.spec, column.data as Int32Array, from.rules, into.rules);
    }
  }
}

/** A table's content, its columns under the names that they have in another now. */
function renamed(old: Table, table: Table): TableContent {
  const content = old.content();
  const specs = table.columns.map((column) => column.spec);
  const columns: Record<string, CellArray> = {};
  for (const { spec } of old.columns) {
    const successor = successorOf(spec, specs);
    if (successor) columns[successor.name] = content.columns[spec.name];
  }
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
