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
  readonly column: Column;
  readonly present: { readonly column: Column; readonly of: readonly unknown[] } | undefined;
}

const isKept = ({ present }: SavedColumn, row: number): boolean => present === undefined || present.of[present.column.data[row]] === true;

/** Stands for a cell that a row does not have. */
const NOT_THERE = Infinity;

/** What is kept of players in one table of a world. */
export class SavedPart {
  constructor(
    readonly table: string,
    readonly columns: readonly SavedColumn[],
  ) {}

  /** What is kept of a row, by the names of the columns; undefined where that is nothing. */
  of(rules: Rules, row: number): SavedPlayer[string] | undefined {
    const cells: SavedPlayer[string] = {};
    let any = false;
    for (const one of this.columns) {
      if (!isKept(one, row)) continue;
      const { spec, data } = one.column;
      cells[spec.name] = spec.kind === 'entry' ? idOf(rules, spec.chapter!, data[row]) : data[row];
      any = true;
    }
    return any ? cells : undefined;
  }

  /**
   * Notes what a row has, a number for each column. Returns whether any is another than what was noted before: what
   * {@link of} comes to is another then, and is the same where none is, as long as entries are called the same.
   * @param noted as many numbers as there are columns, NaN where nothing was noted before
   */
  note(row: number, noted: Float64Array): boolean {
    let isOther = false;
    for (let i = 0; i < this.columns.length; i++) {
      const one = this.columns[i];
      const now = isKept(one, row) ? one.column.data[row] : NOT_THERE;
      if (noted[i] === now) continue;
      noted[i] = now;
      isOther = true;
    }
    return isOther;
  }
}

/** What is kept in each table: found once in a world, of thousands of columns that there may be. */
const known = new WeakMap<World, readonly SavedPart[]>();

/** The tables of a world of which something is kept of players. */
export function savedParts(world: World): readonly SavedPart[] {
  const before = known.get(world);
  if (before) return before;
  const parts = [...world.tables].flatMap(([name, table]) => {
    if (name !== ACTORS && table.spec.extends !== ACTORS) return [];
    const columns = table.columns.flatMap((column): readonly SavedColumn[] => {
      const { saved, present } = column.spec;
      return saved ? [{ column, present: present && { column: table.nearColumn(present.column), of: present.of } }] : [];
    });
    return columns.length === 0 ? [] : [new SavedPart(name, columns)];
  });
  known.set(world, parts);
  return parts;
}

/**
 * What to keep of the player behind an actor.
 * @public
 * @example
 * const saved = savePlayer(world, world.actors.rowOf(actorOfSeat(world, 'north')));
 */
export function savePlayer(world: World, row: number): SavedPlayer {
  const saved: SavedPlayer = {};
  for (const part of savedParts(world)) {
    const cells = part.of(world.rules, row);
    if (cells) saved[part.table] = cells;
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
  for (const { table, columns } of savedParts(world))
    for (const one of columns) if (isKept(one, row)) loadCell(world.rules, one.column, row, saved[table] ?? {});
  world.rules.registry.lifecycle('playerLoaded', world, row);
  world.rules.registry.lifecycle('playerReady', world, row);
}

function loadCell(rules: Rules, { spec, data }: Column, row: number, cells: SavedPlayer[string]): void {
  const names = [spec.name, ...[...(spec.formerly ?? [])].reverse()];
  const value = names.map((name) => cells[name]).find((cell) => cell !== undefined);
  if (value === undefined) return;
  if (spec.kind === 'entry') {
    const index = positionOf(rules, spec.chapter!, String(value));
    if (index >= 0) data[row] = index;
  } else if (typeof value === 'number') data[row] = value;
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
