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

/** The column of a name; undefined where none has it. */
export function columnNamed(columns: readonly ColumnSpec[], name: string): ColumnSpec | undefined {
  return columns[namesOf(columns).named.get(name) ?? -1];
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
const GENERATIONS = 1 << (31 - ROW_BITS);

export class Column {
  data: Float64Array | Int32Array;
  constructor(readonly spec: ColumnSpec) {
    this.data = spec.kind === 'number' ? new Float64Array(0) : new Int32Array(0);
  }
  grow(capacity: number): void {
    const next = this.spec.kind === 'number' ? new Float64Array(capacity) : new Int32Array(capacity);
    next.set(this.data);
    this.data = next;
  }
}

/** A copy of a table's contents; rows at and above `high` were never used. */
export interface TableContent {
  readonly high: number;
  readonly freeHead: number;
  readonly live: Uint8Array;
  readonly generation: Int32Array;
  readonly nextFree: Int32Array;
  readonly columns: Readonly<Record<string, Float64Array | Int32Array>>;
}

/**
 * Rows of typed columns with a free list: all that a world remembers is in such tables. Rows are visited in ascending
 * order everywhere. A dead row's cells are zero, so that equal worlds have equal tables.
 */
export class Table {
  readonly columns: Column[];
  /** Rows `0 <= row < high` may be live. */
  high = 0;
  live = new Uint8Array(0);
  generation = new Int32Array(0);
  /** Rises whenever a row comes or goes or the content is replaced: a derived index built at another version is stale. */
  version = 0;
  private alive = 0;
  private freeHead = -1;
  private nextFree = new Int32Array(0);
  private readonly extensions: Table[] = [];
  private readonly byName = new Map<string, Column>();

  constructor(
    readonly spec: TableSpec,
    private readonly base?: Table,
  ) {
    this.columns = spec.columns.map((column) => new Column(column));
    for (const column of this.columns) this.byName.set(column.spec.name, column);
    base?.extensions.push(this);
    if (!base) this.reserve(16);
    else this.growTo(base.live.length);
  }

  /** @throws when the table has no such column: a mistake in the code, never in a ruleset */
  column(name: string): Column {
    const column = this.byName.get(name);
    if (!column) throw new Error(`Table ${this.spec.name} has no column ${name}`);
    return column;
  }

  /** The column, also looked for in the table that this one extends. */
  nearColumn(name: string): Column {
    return this.byName.get(name) ?? this.base!.nearColumn(name);
  }

  has(name: string): boolean {
    return this.byName.has(name);
  }

  /** Takes a row; its cells are zero. Returns the row's number. */
  add(): number {
    if (this.base) throw new Error(`Rows of ${this.spec.name} come with those of ${this.base.spec.name}`);
    let row = this.freeHead;
    if (row >= 0) this.freeHead = this.nextFree[row];
    else {
      row = this.high;
      if (row > ROW_MASK) throw new Error(`Table ${this.spec.name} is full`);
      if (row >= this.live.length) this.reserve(this.live.length * 2);
    }
    this.take(row);
    return row;
  }

  private take(row: number): void {
    this.live[row] = 1;
    this.alive++;
    this.generation[row] = (this.generation[row] % (GENERATIONS - 1)) + 1;
    if (row >= this.high) this.high = row + 1;
    this.version++;
    for (const extension of this.extensions) extension.take(row);
  }

  /** Writes cells of a row, by the names of their columns. */
  write(row: number, cells: Readonly<Record<string, number>>): void {
    for (const [name, value] of Object.entries(cells)) this.column(name).data[row] = value;
  }

  remove(row: number): void {
    if (this.live[row] === 0) return;
    this.clear(row);
    this.nextFree[row] = this.freeHead;
    this.freeHead = row;
  }

  private clear(row: number): void {
    this.live[row] = 0;
    this.alive--;
    this.version++;
    for (const column of this.columns) column.data[row] = 0;
    for (const extension of this.extensions) extension.clear(row);
  }

  handle(row: number): number {
    return (this.generation[row] << ROW_BITS) | row;
  }

  /** The row that a handle names, or -1 where it has gone. */
  rowOf(handle: number): number {
    const row = handle & ROW_MASK;
    return handle !== 0 && row < this.high && this.live[row] === 1 && this.generation[row] === handle >> ROW_BITS ? row : -1;
  }

  /** How many rows are live. */
  get count(): number {
    return this.alive;
  }

  /** Every row below `high` is live: loops over the rows need not ask. */
  get dense(): boolean {
    return this.alive === this.high;
  }

  private reserve(capacity: number): void {
    this.growTo(Math.max(16, capacity));
    for (const extension of this.extensions) extension.growTo(this.live.length);
  }

  private growTo(capacity: number): void {
    if (capacity <= this.live.length) return;
    const grow = <T extends Uint8Array | Int32Array>(old: T, next: T): T => (next.set(old), next);
    this.live = grow(this.live, new Uint8Array(capacity));
    this.generation = grow(this.generation, new Int32Array(capacity));
    this.nextFree = grow(this.nextFree, new Int32Array(capacity));
    for (const column of this.columns) column.grow(capacity);
  }

  /** Has a row, with nothing in it, for each of the table that this one extends: what was stored before there was this one had none. */
  followBase(): void {
    if (this.base) this.restore({ ...this.base.content(), columns: {} });
  }

  content(): TableContent {
    const { high } = this;
    return {
      high,
      freeHead: this.freeHead,
      live: this.live.slice(0, high),
      generation: this.generation.slice(0, high),
      nextFree: this.nextFree.slice(0, high),
      columns: Object.fromEntries(this.columns.map((c) => [c.spec.name, c.data.slice(0, high)])),
    };
  }

  /** Takes over a content. Columns that it does not have stay zero; columns that this table does not have are dropped. */
  restore(content: TableContent): void {
    this.growTo(content.high);
    this.high = content.high;
    this.freeHead = content.freeHead;
    this.version++;
    const fill = (own: Uint8Array | Int32Array | Float64Array, from?: ArrayLike<number>) => {
      own.fill(0);
      if (from) own.set(from);
    };
    fill(this.live, content.live);
    this.alive = content.live.reduce((sum, live) => sum + live, 0);
    fill(this.generation, content.generation);
    fill(this.nextFree, content.nextFree);
    for (const column of this.columns) fill(column.data, content.columns[column.spec.name]);
  }
}

/** Columns of a table by name, to be kept at hand where every tick asks for them. */
export function columnsOf<K extends string>(table: Table, names: readonly K[]): Readonly<Record<K, Column>> {
  return Object.fromEntries(names.map((name) => [name, table.column(name)])) as Record<K, Column>;
}
