import { POWERS } from '../math/grid.js';
import { isPresent, ruleOf } from '../world/saved.js';
import type { ColumnSpec, PerEntry, Visibility } from '../world/columns.js';
import type { Column, Table } from '../world/table.js';
import { ACTORS } from '../world/actors.js';
import type { World } from '../world/world.js';
import { toldTables } from './schema.js';
import { FrameWriter } from './writer.js';

/** Whose eyes a frame is for: an actor with its team (-1 for none), or somebody who may see everything. */
export type Viewer = { readonly actor: number; readonly team: number } | 'truth';

/** Removals older than this many frames are forgotten; a seat that acknowledges nothing for longer gets a baseline. */
const REMEMBERED_FRAMES = 400;

/** Who a row or a cell is for, as a chunk: one is written once and sent to all it is for. */
type Audience = { readonly see: Visibility; readonly owner: number; readonly team: number };

interface PublishedColumn {
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
  /** Which rows have a value here at all, as a place in the publisher's list of such rules; -1 where all have. */
  readonly presence: number;
}

interface Removal extends Audience {
  readonly frame: number;
  readonly row: number;
}

/** A rule by which rows of a table have a value at all, and the rows that have one now. */
interface Presence {
  readonly table: Table;
  readonly rule: PerEntry<boolean>;
  /** Where a row says which of the rule's answers is its own. */
  readonly holder: Column;
  rows: readonly number[];
}

function presenceOf(table: Table, rule: PerEntry<boolean>, known: Presence[]): number {
  const found = known.findIndex((one) => one.table === table && one.rule.column === rule.column && one.rule.of === rule.of);
  return found >= 0 ? found : known.push({ table, rule, holder: table.nearColumn(rule.column), rows: [] }) - 1;
}

/** One table as its audiences know it. */
class PublishedTable {
  readonly columns: PublishedColumn[];
  generation = new Int32Array(0);
  owner = new Int32Array(0);
  team = new Int32Array(0);
  high = 0;
  removals: Removal[] = [];
  /** The last frame in which anything of the table changed. */
  latest = 0;
  /** The last frame in which a row came, went or changed hands. */
  moved = 0;

  /** @param presences the rules by which rows have values, shared by all tables; new ones are added */
  constructor(
    readonly index: number,
    readonly table: Table,
    holders: ReadonlySet<string>,
    presences: Presence[],
  ) {
    this.columns = table.spec.columns.map((spec, i) => ({
      spec,
      source: table.columns[i],
      index: i,
      scale: spec.kind === 'number' ? POWERS[spec.decimals ?? 1] : 1,
      exact: spec.kind !== 'number',
      told: new Float64Array(0),
      changed: new Int32Array(0),
      latest: 0,
      forTruth: spec.see === 'server' && !holders.has(spec.name),
      current: true,
      presence: spec.present === undefined ? -1 : presenceOf(table, spec.present, presences),
    }));
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
    for (const column of this.columns) {
      const told = new Float64Array(capacity);
      told.set(column.told);
      column.told = told;
      column.changed = grown(column.changed);
    }
  }

  seeOf(column: PublishedColumn, row: number): Visibility {
    const { see } = column.spec;
    return typeof see === 'string' ? see : (ruleOf(this.table, see as PerEntry<Visibility>, row) ?? 'server');
  }
}

/**
 * Tells seats what changed. It knows tables and their columns' visibility, and no concept. Each frame the world is
 * compared once with what was last told, for all seats together; a seat's frame is then put together from chunks that
 * are written once for all who may see them.
 * @public
 * @example
 * const publisher = new Publisher(world);
 * world.step();
 * publisher.capture();
 * send(publisher.frameFor({ actor, team }, acknowledged));
 */
export class Publisher {
  /** The number of the last captured frame; the first is 1. */
  frame = 0;
  private tick = 0;
  private readonly tables: PublishedTable[];
  private readonly base: PublishedTable;
  private readonly writer = new FrameWriter();
  private readonly chunks = new Map<string, Uint8Array | undefined>();
  private readonly isExtension: boolean[];
  private readonly presences: Presence[] = [];
  /** The frame in which an actor last came into another team, by its row: what its seat may see is another since. */
  private readonly switched = new Map<number, number>();

  constructor(private readonly world: World) {
    const told = toldTables(world.rules);
    const holders = new Set(told.flatMap(({ spec }) => spec.columns.flatMap(({ see }) => (typeof see === 'string' ? [] : [see.column]))));
    this.tables = told.map(({ index, spec }) => new PublishedTable(index, world.table(spec.name), holders, this.presences));
    this.base = this.tables.find((t) => t.table.spec.name === ACTORS)!;
    this.isExtension = this.tables.map((t) => t.table.spec.extends === ACTORS);
  }

  /**
   * Compares the world with what was last told. Once a tick, whatever the number of seats.
   * @param truth whether anybody watches the truth: what nobody else may see is not compared without
   */
  capture(truth = true): void {
    this.frame++;
    this.tick = this.world.tick;
    this.chunks.clear();
    for (const presence of this.presences) {
      const { table, rule, holder } = presence;
      const rows: number[] = [];
      for (let row = 0; row < table.high; row++) if (table.live[row] === 1 && rule.of[holder.data[row]]) rows.push(row);
      presence.rows = rows;
    }
    // Rows of extensions come and go with the actors': where none of those did, none of theirs did.
    const fresh = this.rowsMoved(this.base, false);
    const still = this.base.moved !== this.frame;
    for (const [i, published] of this.tables.entries()) {
      const extension = this.isExtension[i];
      const own = published === this.base || (extension && still) ? fresh : this.rowsMoved(published, extension);
      this.captureCells(published, own, truth);
    }
  }

  /** Notes which rows came, went or changed hands since the last frame, and returns those that are new or another's. */
  private rowsMoved(published: PublishedTable, extension: boolean): readonly number[] {
    const { table } = published;
    published.reserve(table.live.length);
    const own = extension || published === this.base;
    const ownerCells = table.owning;
    const teams = this.world.actors.cells.team;
    const high = Math.max(table.high, published.high);
    const fresh: number[] = [];
    for (let row = 0; row < high; row++) {
      const generation = row < table.high && table.live[row] === 1 ? table.generation[row] : 0;
      const owner = generation === 0 ? -1 : own ? row : ownerCells ? this.world.actors.rowOf(ownerCells[row]) : -1;
      const team = owner < 0 ? -1 : teams[owner];
      const before = published.generation[row];
      if (before === generation && published.owner[row] === owner && published.team[row] === team) continue;
      published.moved = this.frame;
      if (published === this.base) this.switched.set(row, this.frame);
      if (before !== 0) this.forget(published, row, extension && generation === 0);
      published.generation[row] = generation;
      published.owner[row] = owner;
      published.team[row] = team;
      if (generation !== 0) fresh.push(row);
    }
    published.high = high;
    return fresh;
  }

  private captureCells(published: PublishedTable, fresh: readonly number[], truth: boolean): void {
    // Of a table in which there never was a row there is nothing to compare.
    if (published.table.high > 0)
      for (const column of published.columns) {
        if (column.forTruth && !truth) {
          column.current = false;
          continue;
        }
        this.captureColumn(published, column, fresh);
        if (column.latest > published.latest) published.latest = column.latest;
      }
    if (published.removals.length > 0 && published.removals[0].frame < this.frame - REMEMBERED_FRAMES)
      published.removals = published.removals.filter((removal) => removal.frame >= this.frame - REMEMBERED_FRAMES);
  }

  private captureColumn({ table, generation }: PublishedTable, column: PublishedColumn, fresh: readonly number[]): void {
    const { data } = column.source;
    const { told, changed, scale, exact, presence } = column;
    const { high } = table;
    let latest = column.latest;
    if (presence >= 0) {
      for (const row of this.presences[presence].rows) {
        const value = exact ? data[row] : Math.floor(data[row] * scale + 0.5);
        if (value === told[row]) continue;
        told[row] = value;
        changed[row] = latest = this.frame;
      }
    } else if (exact) {
      for (let row = 0; row < high; row++)
        if (data[row] !== told[row]) {
          told[row] = data[row];
          changed[row] = latest = this.frame;
        }
    } else
      for (let row = 0; row < high; row++) {
        const value = Math.floor(data[row] * scale + 0.5);
        if (value !== told[row]) {
          told[row] = value;
          changed[row] = latest = this.frame;
        }
      }
    // One that was not looked at is told anew: of what was the same by chance nothing else would say that it is there.
    const anew = column.current ? fresh : Array.from({ length: high }, (_, row) => row);
    for (const row of anew) if (generation[row] !== 0) changed[row] = latest = this.frame;
    if (presence >= 0) for (const row of anew) if (!isPresent(table, column.spec, row)) changed[row] = 0;
    column.current = true;
    column.latest = latest;
  }

  /** Notes that a row has gone, for the widest audience that knew it. Extensions go with their actor without a word. */
  private forget(published: PublishedTable, row: number, silent: boolean): void {
    for (const column of published.columns) column.changed[row] = 0;
    if (silent) return;
    const seen = new Set(published.columns.map((column) => this.toldSee(published, column, row)));
    const see = (['everyone', 'team', 'owner'] as const).find((v) => seen.has(v)) ?? 'server';
    published.latest = this.frame;
    published.removals.push({ frame: this.frame, row, see, owner: published.owner[row], team: published.team[row] });
  }

  /** A column's visibility for a row as it was last told: the row itself may hold something else by now. */
  private toldSee(published: PublishedTable, { spec }: PublishedColumn, row: number): Visibility {
    if (typeof spec.see === 'string') return spec.see;
    const { column: name, of } = spec.see;
    const holder = published.columns.find((c) => c.spec.name === name) ?? this.base.columns.find((c) => c.spec.name === name);
    return of[holder?.told[row] ?? 0] ?? 'server';
  }

  /**
   * A frame for a viewer: all that changed since `acknowledged`, or all there is where that is 0, too long ago, or from
   * before the viewer came into its team.
   * MessagePack of `[frame, base, tick, chunks, heard]`.
   * @param heard the number of the last input of the viewer's connection that the world has run
   */
  frameFor(viewer: Viewer, acknowledged: number, heard = 0): Uint8Array {
    const begun = viewer === 'truth' ? 0 : (this.switched.get(this.world.actors.rowOf(viewer.actor)) ?? 0);
    const known = acknowledged > 0 && acknowledged >= this.frame - REMEMBERED_FRAMES && acknowledged <= this.frame;
    const since = known && acknowledged >= begun ? acknowledged : 0;
    const chunks = this.audiencesOf(viewer)
      .map((audience) => this.chunk(audience, since))
      .filter((chunk) => chunk !== undefined);
    const { writer } = this;
    writer.list(5);
    for (const value of [this.frame, since, this.tick]) writer.int(value);
    writer.list(chunks.length);
    for (const chunk of chunks) writer.binary(chunk);
    writer.int(heard);
    return writer.take();
  }

  private audiencesOf(viewer: Viewer): readonly (Audience | 'truth')[] {
    if (viewer === 'truth') return ['truth'];
    const owner = this.world.actors.rowOf(viewer.actor);
    const { team } = viewer;
    const own: Audience[] = owner < 0 ? [] : [{ see: 'owner', owner, team: -1 }];
    return [{ see: 'everyone', owner: -1, team: -1 }, ...(team < 0 ? [] : [{ see: 'team' as const, owner: -1, team }]), ...own];
  }

  private chunk(audience: Audience | 'truth', since: number): Uint8Array | undefined {
    const key = audience === 'truth' ? `truth@${since}` : `${audience.see}/${audience.owner}/${audience.team}@${since}`;
    if (!this.chunks.has(key)) {
      const cells: (number | string)[] = [];
      for (const published of this.tables) this.writeTable(published, audience, since, cells);
      this.chunks.set(key, cells.length > 0 ? this.encode(cells) : undefined);
    }
    return this.chunks.get(key);
  }

  private encode(cells: readonly (number | string)[]): Uint8Array {
    this.writer.list(cells.length);
    for (const cell of cells) {
      if (typeof cell === 'number') this.writer.int(cell);
      else this.writer.text(cell);
    }
    return this.writer.take();
  }

  /** Appends `table, removed count, rows…, column count, (column, cell count, (row step, value)…)…` where there is anything to say. */
  private writeTable(published: PublishedTable, audience: Audience | 'truth', since: number, out: (number | string)[]): void {
    if (published.latest <= since) return;
    const start = out.length;
    out.push(published.index, 0);
    if (since > 0)
      for (const removal of published.removals)
        if (removal.frame > since && isFor(audience, removal.see, removal.owner, removal.team)) {
          out.push(removal.row);
          (out[start + 1] as number)++;
        }
    const columnCount = out.length;
    out.push(0);
    for (const column of published.columns) {
      if (column.latest <= since) continue;
      const fixed = typeof column.spec.see === 'string' ? column.spec.see : undefined;
      if (fixed !== undefined && audience !== 'truth' && !mayBeFor(audience, fixed)) continue;
      const cellCount = out.length + 1;
      out.push(column.index, 0);
      let previous = 0;
      const { changed } = column;
      for (let row = 0; row < published.high; row++) {
        if (changed[row] <= since || published.generation[row] === 0) continue;
        if (audience !== 'truth' && !isFor(audience, fixed ?? published.seeOf(column, row), published.owner[row], published.team[row]))
          continue;
        out.push(row - previous, column.spec.kind === 'text' ? this.world.text(column.told[row]) : column.told[row]);
        previous = row;
        (out[cellCount] as number)++;
      }
      if (out[cellCount] === 0) out.length -= 2;
      else (out[columnCount] as number)++;
    }
    if (out[start + 1] === 0 && out[columnCount] === 0) out.length = start;
  }
}

/** Whether anything of this visibility can be for this audience. */
function mayBeFor(audience: Audience, see: Visibility): boolean {
  return see === audience.see || (see === 'team' && audience.see === 'owner');
}

/** Whether a row's value of this visibility is for this audience. An actor without a team is a team of one. */
function isFor(audience: Audience | 'truth', see: Visibility, owner: number, team: number): boolean {
  if (audience === 'truth') return true;
  switch (audience.see) {
    case 'everyone':
      return see === 'everyone';
    case 'team':
      return see === 'team' && team === audience.team;
    case 'owner':
      return owner === audience.owner && owner >= 0 && (see === 'owner' || (see === 'team' && team < 0));
    default:
      return false;
  }
}
