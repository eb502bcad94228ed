import { POWERS } from '../math/grid.js';
import { isPresent, ruleOf } from '../world/saved.js';
import type { Rules } from '../ruleset/rules.js';
import { ACTORS, type actorTable } from '../world/actors.js';
import type { CellArray, ColumnSpec, PerEntry, TableSpec, Visibility } from '../world/columns.js';
import { areSurelySame, columnsOfWords, nextOther } from '../world/memory.js';
import type { Table } from '../world/table.js';
import type { Audience } from './audience.js';
import { toldTables } from './schema.js';

/** Removals older than this many frames are forgotten; a seat that acknowledges nothing for longer gets a baseline. */
export const REMEMBERED_FRAMES = 400;

/** A column as it is told, which is the same in all worlds under the same rules. */
export interface PublishedColumn {
  readonly spec: ColumnSpec;
  readonly index: number;
  readonly scale: number;
  /** It is told as it stands: it has no decimals. */
  readonly exact: boolean;
  /** Who sees it, where that is the same for all rows. */
  readonly fixed: Visibility | undefined;
  /** Only who watches the truth is ever told of it, and nothing else goes by it: while nobody does, it is not looked at. */
  readonly forTruth: boolean;
  /** Which rows have a value here at all, as a place in the list of such rules; -1 where all have. */
  readonly presence: number;
  /** What else is told goes by it: whose a row is, whose side they are on, who may see it, whether there is a value at all. */
  readonly decides: boolean;
}

/** A rule by which rows of a table have a value at all. */
interface PresenceRule {
  readonly table: string;
  readonly rule: PerEntry<boolean>;
}

/** What is told under some rules. */
export interface Publication {
  readonly tables: readonly {
    readonly index: number;
    readonly spec: TableSpec;
    readonly columns: readonly PublishedColumn[];
    /** The same in the order in which their cells lie in memory. */
    readonly asTheyLie: readonly PublishedColumn[];
  }[];
  readonly presences: readonly PresenceRule[];
}

/** Rooms of a ruleset run under the same rules, and each edit gives them others. */
const publications = new WeakMap<Rules, Publication>();

/** What is told under these rules. */
export function publicationOf(rules: Rules): Publication {
  let known = publications.get(rules);
  if (!known) publications.set(rules, (known = newPublication(rules)));
  return known;
}

/** The column of actors that says whose side they are on. */
const TEAM = 'team' satisfies keyof typeof actorTable.defined;

function newPublication(rules: Rules): Publication {
  const told = toldTables(rules);
  const all = told.flatMap(({ spec }) => spec.columns);
  const deciding = new Set([
    ...all.flatMap(({ see }) => (typeof see === 'string' ? [] : [see.column])),
    ...all.flatMap(({ present }) => (present === undefined ? [] : [present.column])),
  ]);
  const presences: PresenceRule[] = [];
  const places = new Map<readonly boolean[], number>();
  const presenceOf = (table: string, rule: PerEntry<boolean>): number => {
    const known = places.get(rule.of) ?? -1;
    if (known >= 0 && presences[known].table === table && presences[known].rule.column === rule.column) return known;
    const place = presences.push({ table, rule }) - 1;
    places.set(rule.of, place);
    return place;
  };
  const tables = told.map(({ index, spec }) => {
    const decides = (name: string) => name === spec.owner || deciding.has(name) || (spec.name === ACTORS && name === TEAM);
    const columns = spec.columns.map((column, i): PublishedColumn => {
      const { name, kind, see, present, decimals } = column;
      return {
        spec: column,
        index: i,
        scale: kind === 'number' ? POWERS[decimals ?? 1] : 1,
        exact: kind !== 'number',
        fixed: typeof see === 'string' ? see : undefined,
        forTruth: see === 'server' && !decides(name),
        presence: present === undefined ? -1 : presenceOf(spec.name, present),
        decides: decides(name),
      };
    });
    const asTheyLie = [...new Set(columnsOfWords(spec.columns))].filter((i) => i >= 0).map((i) => columns[i]);
    return { index, spec, columns, asTheyLie };
  });
  return { tables, presences };
}

interface Removal extends Audience {
  readonly frame: number;
  readonly row: number;
}

/** The rows of a table that have a value by a rule. */
export class Presence {
  private frame = 0;
  private found: readonly number[] = [];

  constructor(
    private readonly table: Table,
    private readonly rule: PerEntry<boolean>,
  ) {}

  /** Those that have one, as of this frame. */
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

/** What it takes to begin another run, in words. */
const WORDS_A_RUN = 8;
/** How many words are compared in one go in the time that one takes by itself, at least. */
const AT_ONCE = 8;

/** What was found of a table: nothing, cells that are others, or rows that may have come, gone or changed hands. */
export type Found = 'nothing' | 'cells' | 'rows';

/** One table as its audiences know it. */
export class PublishedTable {
  readonly index: number;
  readonly columns: readonly PublishedColumn[];
  /** What was last told of a cell, as a whole number: numbers times ten to their decimals. See {@link cellOf}. */
  told = new Float64Array(0);
  /** The frame in which a cell last changed; 0 for one that is not told. */
  changed = new Int32Array(0);
  /** By column the last frame in which any of its cells changed. */
  readonly columnLatest: Int32Array;
  /** By row the last frame in which any of its cells changed. */
  rowLatest = new Int32Array(0);
  generation = new Int32Array(0);
  owner = new Int32Array(0);
  team = new Int32Array(0);
  high = 0;
  removals: Removal[] = [];
  /** The last frame in which anything of the table changed. */
  latest = 0;
  /** The last frame in which a row came, went or changed hands. */
  moved = 0;
  private capacity = 0;
  /** By column whether it was not looked at for a while. */
  private readonly missed: Uint8Array;
  /** What it held when it was last looked at, and where it held something else before that. */
  private before = new Int32Array(0);
  private others = new Int32Array(64);
  private count = 0;
  /** What there is to compare, from where to where in the words of the table; undefined until it is worked out anew. */
  private runs: number[] | undefined;
  /** Whether the runs are those for who watches the truth. */
  private runsOfTruth = false;
  /** Whether all of the table is as soon compared as the runs, as long as nothing is another. */
  private isSoonerWhole = false;
  private version = -1;
  private readonly asTheyLie: readonly PublishedColumn[];

  /** @param presences the rows that have values, by the rules of the publication */
  constructor(
    { index, columns, asTheyLie }: Publication['tables'][number],
    readonly table: Table,
    private readonly presences: readonly Presence[],
  ) {
    this.index = index;
    this.columns = columns;
    this.asTheyLie = asTheyLie;
    this.columnLatest = new Int32Array(columns.length);
    this.missed = new Uint8Array(columns.length);
  }

  /** Where a cell of a column stands among what was told and what changed, less its row. */
  cellOf(column: number): number {
    return column * this.capacity;
  }

  reserve(capacity: number): void {
    const before = this.capacity;
    if (before >= capacity) return;
    const grown = <T extends Int32Array | Float64Array>(old: T, next: T): T => {
      for (let k = 0; before > 0 && k < this.columns.length; k++) next.set(old.subarray(k * before, k * before + before), k * capacity);
      return next;
    };
    this.told = grown(this.told, new Float64Array(this.columns.length * capacity));
    this.changed = grown(this.changed, new Int32Array(this.columns.length * capacity));
    const longer = (old: Int32Array) => {
      const next = new Int32Array(capacity);
      next.set(old);
      return next;
    };
    this.generation = longer(this.generation);
    this.owner = longer(this.owner);
    this.team = longer(this.team);
    this.rowLatest = longer(this.rowLatest);
    this.capacity = capacity;
  }

  /**
   * Compares the bytes of the table with what they were when this was last asked.
   * @param truth whether also those that only who watches the truth is told of
   */
  look(frame: number, truth: boolean): Found {
    const { memory, version } = this.table;
    const { words } = memory;
    this.count = 0;
    if (this.version !== version || words.length !== this.before.length) {
      this.version = version;
      if (words.length === this.before.length) this.before.set(words);
      else this.before = words.slice();
      return 'rows';
    }
    const runs = this.runs !== undefined && this.runsOfTruth === truth ? this.runs : this.findRuns(frame, truth);
    // In most ticks nothing of what players have done, seen or earned has changed.
    if (this.isSoonerWhole && areSurelySame(words, this.before)) return 'nothing';
    for (let i = 0; i < runs.length; i += 2) this.compare(runs[i], runs[i + 1]);
    for (let i = 0; i < this.count; i++) if (this.columns[memory.columnOf(this.others[i])].decides) return 'rows';
    return this.count === 0 ? 'nothing' : 'cells';
  }

  /** Of each column that is told, the rows that have a value, as long as they are the same: most of a large ruleset is players' alone. */
  private findRuns(frame: number, truth: boolean): number[] {
    const { memory, high } = this.table;
    const runs: number[] = [];
    for (const { index, presence, forTruth } of this.asTheyLie) {
      if (forTruth && !truth) continue;
      const rows = presence < 0 ? undefined : this.presences[presence].rows(frame);
      const [first, end] = rows === undefined ? [0, high] : [rows[0] ?? 0, (rows.at(-1) ?? -1) + 1];
      if (end === first) continue;
      // Columns that follow each other are gone through in one go, where that is not much more.
      const [from, to] =
        (end - first) * 2 < memory.capacity ? memory.wordsOf(index, first, end) : memory.wordsOf(index, 0, memory.capacity);
      if (runs.at(-1) === from) runs[runs.length - 1] = to;
      else runs.push(from, to);
    }
    let compared = 0;
    for (let i = 0; i < runs.length; i += 2) compared += runs[i + 1] - runs[i] + WORDS_A_RUN;
    this.isSoonerWhole = compared * AT_ONCE > memory.words.length;
    this.runsOfTruth = truth;
    return (this.runs = runs);
  }

  /** Notes which words are others. */
  private compare(from: number, to: number): void {
    const { words } = this.table.memory;
    const { before } = this;
    for (let k = nextOther(words, before, from, to); k < to; k = nextOther(words, before, k + 1, to)) {
      before[k] = words[k];
      this.found(k);
    }
  }

  private found(word: number): void {
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
      this.compareCell(frame, column, this.table.columns[column.index].data, row);
    }
  }

  private compareCell(frame: number, { index, exact, scale }: PublishedColumn, data: CellArray, row: number): void {
    const value = exact ? data[row] : Math.floor(data[row] * scale + 0.5);
    const at = index * this.capacity + row;
    if (value === this.told[at]) return;
    this.told[at] = value;
    this.note(frame, index, row);
  }

  private note(frame: number, column: number, row: number): void {
    this.changed[column * this.capacity + row] = this.columnLatest[column] = this.rowLatest[row] = this.latest = frame;
  }

  /** Somebody watches the truth again, and nobody did for a while. Returns whether there is anything that was not looked at. */
  fallBehind(): boolean {
    let any = false;
    for (const { index, forTruth } of this.columns) if (forTruth) any = (this.missed[index] = 1) === 1;
    return any;
  }

  /** Compares all cells with what was last told, and tells rows anew that are new or another's. */
  captureAll(frame: number, fresh: readonly number[], truth: boolean): void {
    this.runs = undefined;
    // Of a table in which there never was a row there is nothing to compare.
    if (this.table.high === 0) return;
    for (const column of this.columns) if (truth || !column.forTruth) this.captureColumn(frame, column, fresh);
  }

  private captureColumn(frame: number, column: PublishedColumn, fresh: readonly number[]): void {
    const { table, generation } = this;
    const { index, presence } = column;
    const { data } = table.columns[index];
    const { high } = table;
    if (presence >= 0) for (const row of this.presences[presence].rows(frame)) this.compareCell(frame, column, data, row);
    else for (let row = 0; row < high; row++) this.compareCell(frame, column, data, row);
    // One that was not looked at is told anew: of what was the same by chance nothing else would say that it is there.
    const anew = this.missed[index] === 0 ? fresh : Array.from({ length: high }, (_, row) => row);
    for (const row of anew) if (generation[row] !== 0) this.note(frame, index, row);
    if (presence >= 0) for (const row of anew) if (!isPresent(table, column.spec, row)) this.changed[this.cellOf(index) + row] = 0;
    this.missed[index] = 0;
  }

  seeOf({ spec, fixed }: PublishedColumn, row: number): Visibility {
    return fixed ?? ruleOf(this.table, spec.see as PerEntry<Visibility>, row) ?? 'server';
  }

  /** What was last told of a cell. */
  toldOf(column: number, row: number): number {
    return this.told[this.cellOf(column) + row];
  }

  /** Tells nothing more of a row that has gone. */
  forget(row: number): void {
    for (let at = row; at < this.changed.length; at += this.capacity) this.changed[at] = 0;
  }

  /** Forgets removals of which every seat knows by now, or gets a baseline. */
  prune(frame: number): void {
    if (this.removals.length > 0 && this.removals[0].frame < frame - REMEMBERED_FRAMES)
      this.removals = this.removals.filter((removal) => removal.frame >= frame - REMEMBERED_FRAMES);
  }
}
