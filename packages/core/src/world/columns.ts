/** Who may see a value: its own actor, that actor's team, every seat, or nobody beyond the server. */
export type Visibility = 'owner' | 'team' | 'everyone' | 'server';

/** A rule that is looked up per row: `of[value of column]`. The column may stand in the table that this one extends. */
export interface PerEntry<T> {
  readonly column: string;
  readonly of: readonly T[];
}

/**
 * What one column holds.
 * - `number`: an amount on the millionth grid, told to seats with `decimals`
 * - `int`, `tick`, `flag`: whole numbers; ticks are absolute
 * - `serial`: the number of an event or a message: it follows what was told, and is no part of what makes worlds equal
 * - `entry`: the position of an entry of `chapter` in the compiled rules, -1 for none
 * - `actor`: a handle of a row of the actors table, 0 for none
 * - `text`: the position of a text in the world's list of texts
 */
export type ColumnKind = 'number' | 'int' | 'tick' | 'flag' | 'serial' | 'entry' | 'actor' | 'text';

export interface ColumnSpec {
  readonly name: string;
  readonly kind: ColumnKind;
  readonly see: Visibility | PerEntry<Visibility>;
  /** Decimals (0 to 6) that seats are told of a `number`. */
  readonly decimals?: number;
  /** The chapter whose entries an `entry` column holds. */
  readonly chapter?: string;
  /** Whether an `entry` may be none; where it may not, a row goes when its entry does. */
  readonly optional?: boolean;
  /** Names that it had before, where its entry was renamed: what is saved under them is its own. */
  readonly formerly?: readonly string[];
  /** Kept per player between sessions. */
  readonly saved?: boolean;
  /** What is kept in it, in words. */
  readonly label?: string;
  /** Between what it can be, where that does not depend on anything. */
  readonly range?: readonly [number, number];
  /** What its numbers mean, from 0. */
  readonly words?: readonly string[];
  /** Rows that have this value at all; where false it is neither shown nor saved. */
  readonly present?: PerEntry<boolean>;
}

/** The column among others that holds what this one held: of the same name, or of one that either had before; undefined where none does. */
export function successorOf(column: ColumnSpec, others: readonly ColumnSpec[]): ColumnSpec | undefined {
  const { named } = namesOf(others);
  const before = (column.formerly ?? []).map((name) => named.get(name)).filter((at) => at !== undefined);
  return columnCalled(others, column.name) ?? others[Math.min(...before)];
}

/** Where columns stand, by their names. */
export const placesOfColumns = (columns: readonly ColumnSpec[]): ReadonlyMap<string, number> => namesOf(columns).named;

/** Where the column of a name stands; -1 where none has it. */
export const placeOfColumn = (columns: readonly ColumnSpec[], name: string): number => placesOfColumns(columns).get(name) ?? -1;

/** The column of a name; undefined where none has it. */
export function columnNamed(columns: readonly ColumnSpec[], name: string): ColumnSpec | undefined {
  return columns[placeOfColumn(columns, name)];
}

/** The column that has a name, or had it before; undefined where none does. */
export function columnCalled(columns: readonly ColumnSpec[], name: string): ColumnSpec | undefined {
  const { named, former } = namesOf(columns);
  return columns[named.get(name) ?? former.get(name) ?? -1];
}

/** Where columns stand by the names that they have, and by those that they had before: the first where several do. */
interface ColumnNames {
  readonly named: ReadonlyMap<string, number>;
  readonly former: ReadonlyMap<string, number>;
}

/** The same lists, which do not change any more, are asked for each of thousands of cells. */
const knownNames = new WeakMap<readonly ColumnSpec[], ColumnNames>();

function namesOf(columns: readonly ColumnSpec[]): ColumnNames {
  let names = knownNames.get(columns);
  if (!names) {
    const named = columns.map(({ name }, at) => [name, at] as const);
    const former = columns.flatMap(({ formerly = [] }, at) => formerly.map((name) => [name, at] as const));
    knownNames.set(columns, (names = { named: new Map(named.reverse()), former: new Map(former.reverse()) }));
  }
  return names;
}

export interface TableSpec {
  readonly name: string;
  readonly columns: readonly ColumnSpec[];
  /** This table has one row for each row of that one, under the same number, and lives and dies with it. */
  readonly extends?: string;
  /** The `actor` column that leads to the owning actor. The actors table and its extensions own themselves. */
  readonly owner?: string;
  /** What of a player it keeps, in words. */
  readonly title?: string;
  /** Never told to anyone, not even to who watches the truth: the world's own book-keeping. */
  readonly hidden?: boolean;
}

/** A handle names a row of a table for as long as the row lives: the row's number and how often it was reused. */
export const ROW_BITS = 20;
export const ROW_MASK = (1 << ROW_BITS) - 1;
export const GENERATIONS = 1 << (31 - ROW_BITS);

/** The row of an actor by its handle, whether or not it still lives; -1 for the handle of nobody. */
export const rowInHandle = (handle: number): number => (handle === 0 ? -1 : handle & ROW_MASK);

/** The array in which a column's cells are. */
export type CellArray = Float64Array | Int32Array;
