import { type CellArray, type ColumnSpec, GENERATIONS, placesOfColumns, ROW_BITS, ROW_MASK, type TableSpec } from './columns.js';
import { type Hasher, hashText } from './hash.js';
import { roundedUp, TableMemory } from './memory.js';
import { OwnerIndex } from './owner-index.js';
import { type CellValues, encoded, type ReadonlyCells, wordOf } from './rows.js';

/**
 * One column of a table. Its array is another once the table has grown, or lies elsewhere: hold the column, not the array, across
 * anything that adds rows, and from one tick to the next.
 */
export class Column {
  private cells: CellArray | undefined;

  constructor(
    readonly spec: ColumnSpec,
    private readonly memory: TableMemory,
    /** Which column of its table it is. */
    readonly index: number,
  ) {}

  /** Most columns of most worlds are never looked at: what shows their cells is made where somebody does. */
  get data(): CellArray {
    return (this.cells ??= this.memory.cells(this.index));
  }

  moved(): void {
    this.cells = undefined;
  }
}

/** A table's contents. What is at and above `high` was never used. */
export interface TableContent {
  readonly high: number;
  readonly freeHead: number;
  readonly live: Uint8Array;
  readonly generation: Int32Array;
  readonly nextFree: Int32Array;
  readonly columns: Readonly<Record<string, CellArray>>;
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
  /** What {@link rows} came to, and at which version. */
  private listed: readonly number[] = [];
  private listedAt = -1;
  private alive = 0;
  private freeHead = -1;
  private nextFree = new Int32Array(0);
  private readonly extensions: Table[] = [];
  readonly memory: TableMemory;
  private arrays: Record<string, CellArray> | undefined;
  private readonly ownerColumn: Column | undefined;
  private nameWord: number | undefined;
  private places: ReadonlyMap<string, number> | undefined;
  private owners: OwnerIndex | undefined;

  constructor(
    readonly spec: TableSpec,
    private readonly base?: Table,
  ) {
    this.memory = new TableMemory(spec.columns);
    this.columns = spec.columns.map((column, i) => new Column(column, this.memory, i));
    this.ownerColumn = spec.owner === undefined ? undefined : this.near(spec.owner);
    base?.extensions.push(this);
    if (base) this.growTo(base.capacity);
  }

  /** The arrays of the columns by name, as they are now: they are others once a row was added. The object stays the same. */
  get cells(): Readonly<Record<string, ReadonlyCells>> {
    return this.arrays ?? this.showCells((this.arrays = {}));
  }

  private showCells(arrays: Record<string, CellArray>): Record<string, CellArray> {
    for (const column of this.columns) arrays[column.spec.name] = column.data;
    return arrays;
  }

  private near(name: string): Column | undefined {
    const at = (this.places ??= placesOfColumns(this.spec.columns)).get(name);
    return at === undefined ? undefined : this.columns[at];
  }

  /** @throws when the table has no such column: a mistake in the code, never in a ruleset */
  column(name: string): Column {
    const column = this.near(name);
    if (!column) throw new Error(`Table ${this.spec.name} has no column ${name}`);
    return column;
  }

  /** The column, also looked for in the table that this one extends. */
  nearColumn(name: string): Column {
    return this.near(name) ?? this.base!.nearColumn(name);
  }

  /** Takes a row; its cells are zero. Returns the row's number. */
  add(): number {
    if (this.base) throw new Error(`Rows of ${this.spec.name} come with those of ${this.base.spec.name}`);
    let row = this.freeHead;
    if (row >= 0) this.freeHead = this.nextFree[row];
    else {
      row = this.high;
      if (row > ROW_MASK) throw new Error(`Table ${this.spec.name} is full`);
      if (row >= this.capacity) this.reserve(row + 1);
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

  /** Takes a row with these cells; the others are zero. Returns the row's number. */
  insert(values: object): number {
    const row = this.add();
    this.write(row, values);
    return row;
  }

  /** Writes cells of a row, by the names of their columns. */
  write(row: number, values: object): void {
    // A definition narrows what is given to the names and values of its columns.
    const given = values as CellValues;
    for (const name in given) {
      const column = this.column(name);
      const value = encoded(column.spec, given[name]);
      if (column === this.ownerColumn && this.owners) {
        this.owners.remove(row, column.data[row]);
        this.owners.add(row, value);
      }
      column.data[row] = value;
    }
  }

  /** Has just these rows: those that are there already stay under their numbers, others go, and new ones come in this order. */
  keep(wanted: readonly object[]): void {
    if (wanted.length === 0 && this.count === 0) return;
    // What is wanted is what there was, most of the time.
    if (this.holds(wanted as readonly CellValues[])) return;
    const cellsOf = (values: CellValues) => this.columns.map(({ spec }) => wordOf(spec, values));
    const missing = new Map(wanted.map((values) => [cellsOf(values as CellValues).join('/'), values]));
    for (const row of this.rows()) {
      const present = this.columns.map(({ data }) => data[row]).join('/');
      if (!missing.delete(present)) this.remove(row);
    }
    for (const values of missing.values()) this.insert(values);
  }

  /** Whether its rows, ascending, have just these cells. */
  private holds(wanted: readonly CellValues[]): boolean {
    if (wanted.length !== this.count) return false;
    let at = 0;
    for (let row = 0; row < this.high; row++) {
      if (this.live[row] === 0) continue;
      const values = wanted[at++];
      for (const { spec, data } of this.columns) if (data[row] !== wordOf(spec, values)) return false;
    }
    return true;
  }

  /** The live rows, ascending. */
  rows(): readonly number[] {
    if (this.listedAt === this.version) return this.listed;
    const rows: number[] = [];
    for (let row = 0; row < this.high; row++) if (this.live[row] === 1) rows.push(row);
    this.listedAt = this.version;
    return (this.listed = rows);
  }

  /** By row, the handle of whom it belongs to; undefined where rows belong to nobody. */
  get owning(): ReadonlyCells | undefined {
    return this.ownerColumn?.data;
  }

  /** Whom a row belongs to, by handle. */
  ownerOf(row: number): number {
    return this.ownerColumn!.data[row];
  }

  /** Does something for each live row, ascending: also for those that come behind meanwhile, and not for those that go. */
  each(work: (row: number) => void): void {
    for (let row = 0; row < this.high; row++) if (this.live[row] === 1) work(row);
  }

  /** The rows that belong to an actor, ascending. They may be removed while one goes through them. */
  rowsOf(owner: number): readonly number[] {
    const rows: number[] = [];
    for (let row = this.firstOf(owner); row >= 0; row = this.nextOf(row)) rows.push(row);
    return rows;
  }

  /** The first row that belongs to an actor, or -1: where no list of them is wanted, for being asked at every tick. */
  firstOf(owner: number): number {
    return this.owned(this.index().begin(owner), owner);
  }

  /** The next row, behind one, that belongs to the same actor, or -1. */
  nextOf(row: number): number {
    return this.owned(this.index().next(row), this.ownerColumn!.data[row]);
  }

  /** Does something for each row that belongs to an actor, ascending: also for those that come behind meanwhile, and not for those that go. */
  eachOf(owner: number, work: (row: number) => void): void {
    for (let row = this.firstOf(owner); row >= 0;) {
      work(row);
      const stays = this.live[row] === 1 && this.ownerOf(row) === owner;
      const before = row;
      for (row = stays ? row : this.firstOf(owner); row >= 0 && row <= before;) row = this.nextOf(row);
    }
  }

  private owned(row: number, owner: number): number {
    const { data } = this.ownerColumn!;
    while (row >= 0 && data[row] !== owner) row = this.owners!.next(row);
    return row;
  }

  private index(): OwnerIndex {
    if (this.owners) return this.owners;
    if (!this.ownerColumn) throw new Error(`Rows of ${this.spec.name} belong to nobody`);
    this.owners = new OwnerIndex();
    // From the last, so that each comes to the front of its list.
    for (let row = this.high - 1; row >= 0; row--) if (this.live[row] === 1) this.owners.add(row, this.ownerColumn.data[row]);
    return this.owners;
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
    this.owners?.remove(row, this.ownerColumn!.data[row]);
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

  /** Has room for so many rows, or more. */
  reserve(rows: number): void {
    if (rows <= this.capacity) return;
    const capacity = roundedUp(Math.max(rows, this.capacity * 2));
    this.growTo(capacity);
    for (const extension of this.extensions) extension.growTo(capacity);
  }

  private growTo(capacity: number): void {
    if (capacity <= this.capacity) return;
    this.memory.grow(capacity, this.high);
    this.moved();
  }

  /** For how many rows there is room without another block. */
  get capacity(): number {
    return this.memory.capacity;
  }

  /** Its cells lie elsewhere. */
  private moved(): void {
    const { memory } = this;
    this.live = memory.live();
    this.generation = memory.generation();
    this.nextFree = memory.nextFree();
    for (const column of this.columns) column.moved();
    if (this.arrays) this.showCells(this.arrays);
  }

  isIn(block: ArrayBuffer, at: number): boolean {
    return this.memory.isIn(block, at);
  }

  /** Moves into a block, with what it holds. */
  moveTo(block: ArrayBuffer, at: number): void {
    this.memory.moveTo(block, at);
    this.moved();
  }

  /** Lies in a block from now on; what it holds is what that holds there, once {@link come} says how much of it there is. */
  lieAt(block: ArrayBuffer, at: number, capacity: number): void {
    this.memory.lieAt(block, at, capacity);
    this.moved();
  }

  /** The row that is given out next, or -1 where none was given back. */
  get firstFree(): number {
    return this.freeHead;
  }

  /** Its cells are others than they were, with so many rows that were ever used, this one the first that is free, and so many live. */
  come(high: number, freeHead: number, alive: number): void {
    [this.high, this.freeHead, this.alive] = [high, freeHead, alive];
    // Whoever counts on having seen the change before this one has not.
    this.version += 2;
    this.owners = undefined;
  }

  /** Holds what another table with the same columns holds. */
  become(other: Table): void {
    this.memory.become(other.memory);
    this.moved();
    this.followCapacity();
    this.come(other.high, other.freeHead, other.alive);
  }

  /** Has room for as many rows as the table that this one extends, with which they come. */
  private followCapacity(): void {
    if (this.base) this.growTo(this.base.capacity);
  }

  /** Has a row, with nothing in it, for each of the table that this one extends: what was stored before there was this one had none. */
  followBase(): void {
    if (this.base) this.restore({ ...this.base.content(), columns: {} });
  }

  /** What it holds, as it lies there: whoever wants it as it is now copies it. */
  content(): TableContent {
    const { high, freeHead, live, generation, nextFree } = this;
    const used = <T extends Uint8Array | CellArray>(cells: T) => cells.subarray(0, high) as T;
    const columns = Object.fromEntries(this.columns.map(({ spec, data }) => [spec.name, used(data)]));
    return { high, freeHead, live: used(live), generation: used(generation), nextFree: used(nextFree), columns };
  }

  /** Takes over a content. Columns that it does not have are zero; columns that this table does not have are dropped. */
  restore(content: TableContent): void {
    const { high, freeHead } = content;
    // What its extensions hold is said of each by itself, and there is room for it then.
    this.growTo(roundedUp(high));
    this.followCapacity();
    const fill = (own: Uint8Array | CellArray, from?: Uint8Array | CellArray) => {
      own.fill(0);
      if (from) own.set(from.subarray(0, high));
    };
    fill(this.live, content.live);
    fill(this.generation, content.generation);
    fill(this.nextFree, content.nextFree);
    for (const column of this.columns) fill(column.data, content.columns[column.spec.name]);
    this.come(
      high,
      freeHead,
      this.live.reduce((sum, live) => sum + live, 0),
    );
  }

  /** Mixes all that makes it what it is into a digest. */
  digest(hasher: Hasher): void {
    hasher.word((this.nameWord ??= hashText(this.spec.name)));
    hasher.word(this.high);
    if (this.high > 0) this.memory.digest(hasher, this.high);
  }
}
