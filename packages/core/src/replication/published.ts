import { POWERS } from '../math/grid.js';
import { isPresent, ruleOf } from '../world/saved.js';
import type { ColumnSpec, PerEntry, Visibility } from '../world/columns.js';
import type { Column, Table } from '../world/table.js';
import type { Audience } from './audience.js';

/** Removals older than this many frames are forgotten; a seat that acknowledges nothing for longer gets a baseline. */
export const REMEMBERED_FRAMES = 400;

export interface PublishedColumn {
  readonly spec: ColumnSpec;
  readonly source: Column;
  readonly index: number;
  readonly scale: number;
  /** It is told as it stands: it has no decimals. */
  readonly exact: boolean;
  /** What was last told, as whole numbers: numbers times ten to their decimals. */
  told: Float64Array;
  /** The frame in which the cell last changed; 0 for a cell that is not told. */
  changed: Int32Array;
  latest: number;
  /** Only who watches the truth is ever told of it, and nothing else goes by it: while nobody does, it is not looked at. */
  readonly forTruth: boolean;
  /** It was looked at in the frame before. */
  current: boolean;
  /** Which rows have a value here at all, as a place in the list of such rules; -1 where all have. */
  readonly presence: number;
  /** What else is told goes by it: whose a row is, whose side they are on, who may see it, whether there is a value at all. */
  readonly decides: boolean;
}

interface Removal extends Audience {
  readonly frame: number;
  readonly row: number;
}

/** A rule by which rows of a table have a value at all, and the rows that have one now. */
export class Presence {
  private frame = 0;
  private found: readonly number[] = [];

  constructor(
    readonly table: Table,
    readonly rule: PerEntry<boolean>,
  ) {}

  /** The rows that have a value, as of this frame. */
  rows(frame: number): readonly number[] {
    if (this.frame === frame) return this.found;
    const { table, rule } = this;
    // Where a row says which of the rule's answers is its own.
    const { data } = table.nearColumn(rule.column);
    const rows: number[] = [];
    for (let row = 0; row < table.high; row++) if (table.live[row] === 1 && rule.of[data[row]]) rows.push(row);
    this.frame = frame;
    return (this.found = rows);
  }
}

function presenceOf(table: Table, rule: PerEntry<boolean>, known: Presence[]): number {
  const found = known.findIndex((one) => one.table === table && one.rule.column === rule.column && one.rule.of === rule.of);
  return found >= 0 ? found : known.push(new Presence(table, rule)) - 1;
}

/** What was found of a table: nothing, cells that are others, or rows that may have come, gone or changed hands. */
export type Found = 'nothing' | 'cells' | 'rows';

/** One table as its audiences know it. */
export class PublishedTable {
  readonly columns: PublishedColumn[];
  generation = new Int32Array(0);
  owner = new Int32Array(0);
  team = new Int32Array(0);
  /** By row the last frame in which any of its cells changed. */
  rowLatest = new Int32Array(0);
  high = 0;
  removals: Removal[] = [];
  /** The last frame in which anything of the table changed. */
  latest = 0;
  /** The last frame in which a row came, went or changed hands. */
  moved = 0;
  /** What it held when it was last looked at, and where it held something else before that. */
  private before = new Int32Array(0);
  private others = new Int32Array(64);
  private count = 0;
  /** What is looked at while nobody watches the truth: from where to where in {@link TableMemory.words}, for each row there is room for. */
  private readonly ranges: readonly (readonly [from: number, to: number])[];

  /**
   * @param deciding names of columns by which it goes who sees what
   * @param presences the rules by which rows have values, shared by all tables; new ones are added
   */
  constructor(
    readonly index: number,
    readonly table: Table,
    deciding: ReadonlySet<string>,
    private readonly presences: Presence[],
  ) {
    const { spec, columns } = table;
    this.columns = spec.columns.map((column, i) => ({
      spec: column,
      source: columns[i],
      index: i,
      scale: column.kind === 'number' ? POWERS[column.decimals ?? 1] : 1,
      exact: column.kind !== 'number',
      told: new Float64Array(0),
      changed: new Int32Array(0),
      latest: 0,
      forTruth: column.see === 'server' && !deciding.has(column.name),
      current: true,
      presence: column.present === undefined ? -1 : presenceOf(table, column.present, presences),
      decides: column.name === spec.owner || deciding.has(column.name),
    }));
    this.ranges = this.rangesToldToSeats();
  }

  private rangesToldToSeats(): readonly (readonly [from: number, to: number])[] {
    const { slots } = this.table.memory;
    const ranges: (readonly [number, number])[] = [];
    slots.forEach((column, slot) => {
      if (column >= 0 && this.columns[column].forTruth) return;
      const [from, to] = ranges.at(-1) ?? [slot, -1];
      if (to === slot) ranges[ranges.length - 1] = [from, slot + 1];
      else ranges.push([slot, slot + 1]);
    });
    return ranges;
  }

  reserve(capacity: number): void {
    if (this.generation.length >= capacity) return;
    const grown = (old: Int32Array) => {
      const next = new Int32Array(capacity);
      next.set(old);
      return next;
    };
    this.generation = grown(this.generation);
    this.owner = grown(this.owner);
    this.team = grown(this.team);
    this.rowLatest = grown(this.rowLatest);
    for (const column of this.columns) {
      const told = new Float64Array(capacity);
      told.set(column.told);
      column.told = told;
      column.changed = grown(column.changed);
    }
  }

  /**
   * Compares the bytes of the table with what they were when this was last asked.
   * @param truth whether also those that only who watches the truth is told of
   */
  look(truth: boolean): Found {
    const { memory } = this.table;
    const { words } = memory;
    this.count = 0;
    if (words.length !== this.before.length) {
      this.before = words.slice();
      return 'rows';
    }
    if (truth) this.compare(0, words.length);
    else {
      const rows = memory.capacity;
      for (const [from, to] of this.ranges) this.compare(from * rows, to * rows);
      // Which rows are live comes last.
      this.compare(words.length - rows / 4, words.length);
    }
    for (let i = 0; i < this.count; i++) {
      const column = memory.columnOf(this.others[i]);
      if (column < 0 || this.columns[column].decides) return 'rows';
    }
    return this.count === 0 ? 'nothing' : 'cells';
  }

  /** Notes which words are others. Between multiples of four; nearly all are the same, nearly always. */
  private compare(from: number, to: number): void {
    const { words } = this.table.memory;
    const { before } = this;
    for (let i = from; i < to; i += 4) {
      const others =
        (words[i] ^ before[i]) | (words[i + 1] ^ before[i + 1]) | (words[i + 2] ^ before[i + 2]) | (words[i + 3] ^ before[i + 3]);
      if (others === 0) continue;
      for (let k = i; k < i + 4; k++)
        if (words[k] !== before[k]) {
          before[k] = words[k];
          this.note(k);
        }
    }
  }

  private note(word: number): void {
    if (this.count === this.others.length) {
      const more = new Int32Array(this.count * 2);
      more.set(this.others);
      this.others = more;
    }
    this.others[this.count++] = word;
  }

  /** Takes it that what was found to be others are all cells that are; rows are the same. */
  captureFound(frame: number): void {
    const { memory } = this.table;
    for (let i = 0; i < this.count; i++) {
      const word = this.others[i];
      const column = this.columns[memory.columnOf(word)];
      const row = memory.rowOf(word, column.index);
      if (column.presence >= 0 && !isPresent(this.table, column.spec, row)) continue;
      const { data } = column.source;
      const value = column.exact ? data[row] : Math.floor(data[row] * column.scale + 0.5);
      if (value === column.told[row]) continue;
      column.told[row] = value;
      column.changed[row] = column.latest = this.rowLatest[row] = this.latest = frame;
    }
  }

  /** Somebody watches the truth again, and nobody did for a while. Returns whether there is anything that was not looked at. */
  fallBehind(): boolean {
    const missed = this.columns.filter(({ forTruth }) => forTruth);
    for (const column of missed) column.current = false;
    return missed.length > 0;
  }

  /** Compares all cells with what was last told, and tells rows anew that are new or another's. */
  captureAll(frame: number, fresh: readonly number[], truth: boolean): void {
    // Of a table in which there never was a row there is nothing to compare.
    if (this.table.high === 0) return;
    for (const column of this.columns) {
      if (truth || !column.forTruth) this.captureColumn(frame, column, fresh);
      if (column.latest > this.latest) this.latest = column.latest;
    }
  }

  private captureColumn(frame: number, column: PublishedColumn, fresh: readonly number[]): void {
    const { table, generation, rowLatest } = this;
    const { data } = column.source;
    const { told, changed, scale, exact, presence } = column;
    const { high } = table;
    let latest = column.latest;
    if (presence >= 0) {
      for (const row of this.presences[presence].rows(frame)) {
        const value = exact ? data[row] : Math.floor(data[row] * scale + 0.5);
        if (value === told[row]) continue;
        told[row] = value;
        changed[row] = latest = rowLatest[row] = frame;
      }
    } else
      for (let row = 0; row < high; row++) {
        const value = exact ? data[row] : Math.floor(data[row] * scale + 0.5);
        if (value === told[row]) continue;
        told[row] = value;
        changed[row] = latest = rowLatest[row] = frame;
      }
    // One that was not looked at is told anew: of what was the same by chance nothing else would say that it is there.
    const anew = column.current ? fresh : Array.from({ length: high }, (_, row) => row);
    for (const row of anew) if (generation[row] !== 0) changed[row] = latest = rowLatest[row] = frame;
    if (presence >= 0) for (const row of anew) if (!isPresent(table, column.spec, row)) changed[row] = 0;
    column.current = true;
    column.latest = latest;
  }

  seeOf({ spec }: PublishedColumn, row: number): Visibility {
    const { see } = spec;
    return typeof see === 'string' ? see : (ruleOf(this.table, see as PerEntry<Visibility>, row) ?? 'server');
  }

  /** Forgets removals of which every seat knows by now, or gets a baseline. */
  prune(frame: number): void {
    if (this.removals.length > 0 && this.removals[0].frame < frame - REMEMBERED_FRAMES)
      this.removals = this.removals.filter((removal) => removal.frame >= frame - REMEMBERED_FRAMES);
  }
}
