import { z } from 'zod';
import { sameList } from '../ruleset/recording.js';
import { hasSameIds, idOf, movedPositions, positionOf, type Rules } from '../ruleset/rules.js';
import { columnCalled, columnNamed, type ColumnSpec, successorOf } from './columns.js';
import type { Column, Table } from './table.js';
import { ACTORS } from './actors.js';
import type { World } from './world.js';

/** What is kept of a player between sessions: by table and column, entries by id, so that it survives edits of the rules. */
export const savedPlayer = z.record(z.string().max(80), z.record(z.string().max(200), z.union([z.number(), z.string().max(200)])));
export type SavedPlayer = z.infer<typeof savedPlayer>;

/** Reads the cell's rule for its row: an own value, or one looked up by the entry that the row holds. */
export function ruleOf<T>(table: Table, rule: { readonly column: string; readonly of: readonly T[] }, row: number): T | undefined {
  return rule.of[table.nearColumn(rule.column).data[row]];
}

export function isPresent(table: Table, spec: ColumnSpec, row: number): boolean {
  return spec.present === undefined || ruleOf(table, spec.present, row) === true;
}

/** A column of which something is kept of a player, and by what it is told whether they have it. */
interface SavedColumn {
  /** Its table's name. */
  readonly name: string;
  readonly column: Column;
  readonly present: { readonly column: Column; readonly of: readonly unknown[] } | undefined;
}

/** The columns of which something is kept: found once in a world, of thousands that there may be. */
const known = new WeakMap<World, readonly SavedColumn[]>();

function savedColumns(world: World): readonly SavedColumn[] {
  const before = known.get(world);
  if (before) return before;
  const columns = [...world.tables].flatMap(([name, table]) =>
    name !== ACTORS && table.spec.extends !== ACTORS
      ? []
      : table.columns.flatMap((column): readonly SavedColumn[] => {
          const { saved, present } = column.spec;
          return saved ? [{ name, column, present: present && { column: table.nearColumn(present.column), of: present.of } }] : [];
        }),
  );
  known.set(world, columns);
  return columns;
}

const isKept = ({ present }: SavedColumn, row: number): boolean => present === undefined || present.of[present.column.data[row]] === true;

/**
 * What to keep of the player behind an actor.
 * @public
 * @example
 * const saved = savePlayer(world, world.actors.rowOf(actorOfSeat(world, 'north')));
 */
export function savePlayer(world: World, row: number): SavedPlayer {
  const saved: SavedPlayer = {};
  for (const one of savedColumns(world)) {
    if (!isKept(one, row)) continue;
    const { name, column } = one;
    const value = column.data[row];
    (saved[name] ??= {})[column.spec.name] = column.spec.kind === 'entry' ? idOf(world.rules, column.spec.chapter!, value) : value;
  }
  return saved;
}

/**
 * Gives an actor what was kept of its player. What the rules no longer know is passed over.
 * @public
 * @example
 * loadPlayer(world, world.actors.rowOf(actorOfSeat(world, 'north')), saved);
 */
export function loadPlayer(world: World, row: number, saved: SavedPlayer): void {
  for (const one of savedColumns(world)) {
    if (!isKept(one, row)) continue;
    const { name, column } = one;
    const cells = saved[name] ?? {};
    const value = [column.spec.name, ...[...(column.spec.formerly ?? [])].reverse()]
      .map((key) => cells[key])
      .find((cell) => cell !== undefined);
    if (value === undefined) continue;
    if (column.spec.kind === 'entry') {
      const index = positionOf(world.rules, column.spec.chapter!, String(value));
      if (index >= 0) column.data[row] = index;
    } else if (typeof value === 'number') column.data[row] = value;
  }
  world.rules.registry.lifecycle('playerLoaded', world, row);
}

const NO_COLUMNS: readonly ColumnSpec[] = [];

const columnsOf = ({ tables }: Rules, table: string): readonly ColumnSpec[] =>
  tables.find(({ name }) => name === table)?.columns ?? NO_COLUMNS;

/**
 * Whether what is kept of players is called the same under other rules, whoever they are: it comes from the very same tables, and
 * the entries that it names are the same. Then {@link followSaved} leaves it as it is, and {@link unplacedOf} finds what it found.
 */
export function keepsNames(before: Rules, after: Rules): boolean {
  const own = ({ tables }: Rules) => tables.filter(({ name, extends: base }) => name === ACTORS || base === ACTORS);
  const tables = own(before);
  return (
    sameList(tables, own(after)) === tables &&
    tables.every(({ columns }) =>
      columns.every(({ saved, kind, chapter }) => !saved || kind !== 'entry' || hasSameIds(before, after, chapter!)),
    )
  );
}

/**
 * What was kept of a player under some rules, as these other rules call it: renamed columns and entries follow, also where
 * a renaming was undone. What they have no place for stays under its old name: a deletion that is undone loses nothing.
 */
export function followSaved(before: Rules, after: Rules, saved: SavedPlayer): SavedPlayer {
  return Object.fromEntries(
    Object.entries(saved).map(([table, cells]) => {
      const [own, others] = [columnsOf(before, table), columnsOf(after, table)];
      const moved = Object.entries(cells).map(([name, value]) => {
        const old = columnNamed(own, name);
        const now = old && successorOf(old, others);
        return [now?.name ?? name, now?.kind === 'entry' ? movedEntry(before, after, now.chapter!, value) : value] as const;
      });
      return [table, Object.fromEntries(moved)];
    }),
  );
}

/** What of a saved player has no place under these rules: what was kept of entries that are deleted. */
export function unplacedOf(rules: Rules, saved: SavedPlayer): SavedPlayer {
  const tables = Object.entries(saved).map(([table, cells]) => {
    const columns = columnsOf(rules, table);
    return [table, Object.fromEntries(Object.entries(cells).filter(([name]) => columnCalled(columns, name) === undefined))] as const;
  });
  return Object.fromEntries(tables.filter(([, cells]) => Object.keys(cells).length > 0));
}

/** What is kept of a player, with more of it added; where both say something, the later one holds. */
export function mergeSaved(saved: SavedPlayer, more: SavedPlayer): SavedPlayer {
  // Mostly there is nothing to be added to.
  if (Object.keys(saved).length === 0) return more;
  const names = [...new Set([...Object.keys(saved), ...Object.keys(more)])];
  return Object.fromEntries(names.map((table) => [table, { ...saved[table], ...more[table] }]));
}

function movedEntry(before: Rules, after: Rules, chapter: string, value: number | string): number | string {
  const at = before.chapters.get(chapter)?.ids.indexOf(String(value)) ?? -1;
  const now = at < 0 ? -1 : movedPositions(before, after, chapter)[at];
  return now < 0 ? value : idOf(after, chapter, now);
}

/** Removes every row that an actor owns, in all tables. */
export function removeOwned(world: World, actor: number): void {
  for (const table of world.tables.values()) {
    if (table.spec.owner === undefined) continue;
    for (const row of table.rowsOf(actor)) table.remove(row);
  }
}
