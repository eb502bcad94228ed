import type { CellArray, ColumnSpec } from './columns.js';
import type { Hasher } from './hash.js';

/** Rows come by so many: whatever a table's columns are, its part of a block ends where numbers of any size may begin. */
const ROWS = 16;
const NOTHING = new ArrayBuffer(0);
/** What each row has of 4 bytes beside its cells: its generation, and the next row that is free. */
const NARROW_OWN = 2;

type Kinds = readonly Pick<ColumnSpec, 'kind'>[];

/** What the columns of a table take, for each row that there is room for. Worlds come and go, with the same columns. */
interface Extent {
  /** How many columns have numbers of 8 bytes; the others have 4. */
  readonly wide: number;
  /** In bytes. */
  readonly row: number;
  /** For each column, how many words of 4 bytes a row takes of those that lie before it. */
  readonly before: Int32Array;
  /** The columns that make worlds equal: for each {@link before}, and how many words it takes itself. */
  readonly digested: Int32Array;
  /** Turned round: the column of the words that lie behind so many for each row; -1 for what a row has besides. */
  readonly columns: Int32Array;
}

const extents = new WeakMap<Kinds, Extent>();

export const isWide = ({ kind }: Pick<ColumnSpec, 'kind'>): boolean => kind === 'number';

function extentOf(columns: Kinds): Extent {
  const known = extents.get(columns);
  if (known) return known;
  const wide = columns.filter(isWide).length;
  const before = new Int32Array(columns.length);
  const digested: number[] = [];
  let [wides, narrows] = [0, 0];
  columns.forEach((column, i) => {
    before[i] = isWide(column) ? 2 * wides++ : 2 * wide + NARROW_OWN + narrows++;
    if (column.kind !== 'serial') digested.push(before[i], isWide(column) ? 2 : 1);
  });
  // And for each row whether it is live.
  const row = wide * 8 + (columns.length - wide + NARROW_OWN) * 4 + 1;
  const at = new Int32Array(wide + columns.length + NARROW_OWN).fill(-1);
  before.forEach((words, i) => at.fill(i, words, words + (isWide(columns[i]) ? 2 : 1)));
  const extent = { wide, row, before, digested: Int32Array.from(digested), columns: at };
  extents.set(columns, extent);
  return extent;
}

/**
 * Which columns the words of a table are of, in the order in which they lie, for each row that there is room for: one of 8 bytes
 * has two. -1 for what rows have besides; which of them are live lies behind.
 */
export const columnsOfWords = (columns: Kinds): Int32Array => extentOf(columns).columns;

/** The bytes of a table with these columns and room for so many rows. */
export const bytesOf = (columns: Kinds, capacity: number): number => capacity * extentOf(columns).row;

/** A number of rows, or as many more as it takes. */
export const roundedUp = (rows: number): number => Math.ceil(rows / ROWS) * ROWS;

/** Where two lists of words are others first, from one place on; `to` where they are the same up to there. */
export function nextOther(one: Int32Array, other: Int32Array, from: number, to: number): number {
  let i = from + (to - from < STRETCH || platformCompare === undefined ? 0 : sameStretches(platformCompare, one, other, from, to));
  while (i < to && one[i] === other[i]) i++;
  return i;
}

/** Compares bytes of two arrays, each from and to a place of its own; 0 where they are the same. */
type CompareBytes = (this: Uint8Array, other: Uint8Array, otherFrom: number, otherTo: number, from: number, to: number) => number;

/** Node has a way to compare bytes that is many times as fast as a loop, and comes to the same; a browser has none. */
const platformCompare = (globalThis as { readonly Buffer?: { readonly prototype: { readonly compare: CompareBytes } } }).Buffer?.prototype
  .compare;

/** So many words are worth asking the platform. */
const STRETCH = 256;

/** Whether it is known at once that two lists of words of one length are the same: not of few, nor where it would have to be looked for. */
export const areSurelySame = (one: Int32Array, other: Int32Array): boolean =>
  platformCompare !== undefined &&
  one.length >= STRETCH &&
  platformCompare.call(bytesUnder(one), bytesUnder(other), 0, one.length * 4, 0, one.length * 4) === 0;

const bytesUnder = ({ buffer, byteOffset, byteLength }: Int32Array) => new Uint8Array(buffer, byteOffset, byteLength);

/** How many words from one place on are the same, in whole stretches. */
function sameStretches(compare: CompareBytes, one: Int32Array, other: Int32Array, from: number, to: number): number {
  const [own, others] = [bytesUnder(one), bytesUnder(other)];
  const isSame = (i: number, end: number) => compare.call(own, others, i * 4, end * 4, i * 4, end * 4) === 0;
  // Nearly all words are the same, nearly always.
  if (isSame(from, to)) return to - from;
  let i = from;
  while (i + STRETCH <= to && isSame(i, i + STRETCH)) i += STRETCH;
  return i - from;
}

/**
 * Where the cells of a table are: a part of a block of bytes. Columns of 8 bytes come first, then the rows' generations, the
 * list of those that are free, columns of 4 bytes, and at last which rows are live. A table that has grown stands by itself
 * until its world is gathered in one block again: whoever goes through other tables meanwhile still holds their cells.
 */
export class TableMemory {
  private block = NOTHING;
  private begin = 0;
  private rows = 0;
  private whole: Int32Array<ArrayBuffer> | undefined;
  private readonly extent: Extent;

  constructor(private readonly columns: Kinds) {
    this.extent = extentOf(columns);
  }

  /** For how many rows there is room. */
  get capacity(): number {
    return this.rows;
  }

  get bytes(): number {
    return this.extent.row * this.rows;
  }

  isIn(block: ArrayBuffer, at: number): boolean {
    return this.block === block && this.begin === at;
  }

  /** All its bytes, as words of 4. */
  get words(): Int32Array<ArrayBuffer> {
    return (this.whole ??= new Int32Array(this.block, this.begin, this.bytes / 4));
  }

  /** Which column a word among {@link words} is of; -1 where it says how rows come and go. */
  columnOf(word: number): number {
    const { columns } = this.extent;
    const slot = Math.floor(word / this.rows);
    return slot < columns.length ? columns[slot] : -1;
  }

  /** Where the cells of a column lie among {@link words}: of the rows from one to before another. */
  wordsOf(column: number, from: number, to: number): readonly [from: number, to: number] {
    const { before, wide } = this.extent;
    const begin = before[column] * this.rows;
    const each = before[column] < wide * 2 ? 2 : 1;
    return [begin + from * each, begin + to * each];
  }

  /** Which row a word of a column is of. */
  rowOf(word: number, column: number): number {
    const { before, wide } = this.extent;
    const behind = word - before[column] * this.rows;
    return before[column] < wide * 2 ? behind >> 1 : behind;
  }

  private narrowAt(nth: number): number {
    return (this.extent.wide * 2 + nth) * this.rows;
  }

  cells(column: number): CellArray {
    const at = this.begin + this.extent.before[column] * this.rows * 4;
    return isWide(this.columns[column]) ? new Float64Array(this.block, at, this.rows) : new Int32Array(this.block, at, this.rows);
  }

  generation(): Int32Array<ArrayBuffer> {
    return new Int32Array(this.block, this.begin + this.narrowAt(0) * 4, this.rows);
  }

  nextFree(): Int32Array<ArrayBuffer> {
    return new Int32Array(this.block, this.begin + this.narrowAt(1) * 4, this.rows);
  }

  live(): Uint8Array<ArrayBuffer> {
    return new Uint8Array(this.block, this.begin + this.bytes - this.rows, this.rows);
  }

  /** Has room for more rows, by itself; those there are keep what they hold. */
  grow(capacity: number, high: number): void {
    const before = { words: this.words, live: this.live(), rows: this.rows };
    this.lieAt(new ArrayBuffer(bytesOf(this.columns, capacity)), 0, capacity);
    const { words } = this;
    const { wide } = this.extent;
    const narrow = this.columns.length - wide + NARROW_OWN;
    const move = (from: number, to: number, count: number) => {
      for (let i = 0; i < count; i++) words[to + i] = before.words[from + i];
    };
    for (let k = 0; k < wide; k++) move(k * before.rows * 2, k * capacity * 2, high * 2);
    for (let k = 0; k < narrow; k++) move((wide * 2 + k) * before.rows, this.narrowAt(k), high);
    this.live().set(before.live);
  }

  /** Holds what another memory for the same columns holds, by itself. */
  become(other: TableMemory): void {
    this.lieAt(other.block.slice(other.begin, other.begin + other.bytes), 0, other.rows);
  }

  /** Moves into a block as it is. */
  moveTo(block: ArrayBuffer, at: number): void {
    const { bytes } = this;
    new Uint8Array(block, at, bytes).set(new Uint8Array(this.block, this.begin, bytes));
    this.lieAt(block, at, this.rows);
  }

  /** Is what a block holds there. */
  lieAt(block: ArrayBuffer, at: number, capacity: number): void {
    this.block = block;
    this.begin = at;
    this.rows = capacity;
    this.whole = undefined;
  }

  /** Mixes what makes worlds equal of the rows below `high` into a digest. Rows beyond those ever used are empty, in every world. */
  digest(hasher: Hasher, high: number): void {
    const { words, rows } = this;
    const { digested } = this.extent;
    const used = Math.ceil(high / 4) * 4;
    // Four flags of live rows are in one word.
    hasher.words(words, (this.bytes - rows) / 4, Math.ceil(high / 16) * 4);
    hasher.words(words, this.narrowAt(0), used);
    for (let i = 0; i < digested.length; i += 2) hasher.words(words, digested[i] * rows, digested[i + 1] * used);
  }
}
