import { roundTo } from '../math/grid.js';
import { idOf } from '../ruleset/rules.js';
import { isPresent, ruleOf } from '../world/saved.js';
import type { ColumnSpec, Visibility } from '../world/columns.js';
import type { Column, Table } from '../world/table.js';
import { ACTORS } from '../world/actors.js';
import type { World } from '../world/world.js';
import type { CopyValue } from './copy.js';
import type { Viewer } from './publisher.js';
import { toldTables } from './schema.js';

/**
 * What a viewer may see of a world, worked out cell by cell straight from the declarations: the plain statement of what
 * {@link Publisher} and `Copy` come to together, for tests and for comparing a copy with the truth.
 */
export function shownTo(world: World, viewer: Viewer): Record<string, Record<number, Record<string, CopyValue>>> {
  const all: Record<string, Record<number, Record<string, CopyValue>>> = {};
  for (const { spec } of toldTables(world.rules)) {
    const table = world.table(spec.name);
    for (let row = 0; row < table.high; row++) {
      if (table.live[row] === 0) continue;
      const seen = table.columns.filter(({ spec }) => isPresent(table, spec, row) && maySee(world, table, spec, row, viewer));
      if (seen.length === 0) continue;
      const cells = seen.map((column) => [column.spec.name, toldValue(world, column, row)] as const).sort(([a], [b]) => (a < b ? -1 : 1));
      (all[spec.name] ??= {})[row] = Object.fromEntries(cells);
    }
  }
  return all;
}

/** What a viewer may see of one cell, by the names of its table and column; undefined where it is not for them, or not there. */
export function cellShownTo(world: World, viewer: Viewer, table: string, column: string, row: number): CopyValue | undefined {
  const of = world.table(table);
  const cell = of.columns.find(({ spec }) => spec.name === column);
  if (!cell || row < 0 || of.live[row] === 0 || !isPresent(of, cell.spec, row) || !maySee(world, of, cell.spec, row, viewer))
    return undefined;
  return toldValue(world, cell, row);
}

function maySee(world: World, table: Table, column: ColumnSpec, row: number, viewer: Viewer): boolean {
  if (viewer === 'truth') return true;
  const see: Visibility = typeof column.see === 'string' ? column.see : (ruleOf(table, column.see, row) ?? 'server');
  if (see === 'everyone') return true;
  if (see === 'server') return false;
  const owner = ownerOf(world, table, row);
  if (owner < 0) return false;
  if (owner === world.actors.rowOf(viewer.actor)) return true;
  const team = world.actors.cells.team[owner];
  return see === 'team' && team >= 0 && team === viewer.team;
}

function ownerOf(world: World, table: Table, row: number): number {
  if (table.spec.name === ACTORS || table.spec.extends === ACTORS) return row;
  return table.spec.owner === undefined ? -1 : world.actors.rowOf(table.ownerOf(row));
}

function toldValue(world: World, { spec: column, data }: Column, row: number): CopyValue {
  const value = data[row];
  if (column.kind === 'number') return roundTo(value, column.decimals ?? 1);
  if (column.kind === 'text') return world.text(value);
  return column.kind === 'entry' ? idOf(world.rules, column.chapter!, value) : value;
}
