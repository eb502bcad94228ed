import { type PerEntry, placeOfColumn, type Visibility } from '../world/columns.js';
import { ACTORS } from '../world/actors.js';
import type { World } from '../world/world.js';
import { type Audience, EVERYBODY, isFor, mayBeFor, mayHave, TRUTH } from './audience.js';
import { Presence, publicationOf, type PublishedColumn, PublishedTable, REMEMBERED_FRAMES } from './published.js';
import { FrameWriter } from './writer.js';

/** Whose eyes a frame is for: an actor with its team (-1 for none), or somebody who may see everything. */
export type Viewer = { readonly actor: number; readonly team: number } | 'truth';

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
  private readonly chunks = new Map<number, Uint8Array | undefined>();
  private readonly isExtension: boolean[];
  /** Whether anybody watched the truth in the frame before. */
  private watched = true;
  /** The frame in which an actor last came into another team, by its row: what its seat may see is another since. */
  private readonly switched = new Map<number, number>();
  /** What a chunk is put together from, and the rows that may be in it: filled anew for each. */
  private readonly cells: (number | string)[] = [];
  private rows = new Int32Array(64);

  constructor(private readonly world: World) {
    const { tables, presences: rules } = publicationOf(world.rules);
    const presences = rules.map(({ table, rule }) => new Presence(world.table(table), rule));
    this.tables = tables.map((told) => new PublishedTable(told, world.table(told.spec.name), presences));
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
    // Rows of extensions come and go with the actors', and rows of others change sides with them.
    const ofActors = this.base.look(this.frame, truth);
    const returns = truth && !this.watched;
    this.watched = truth;
    const fresh = this.rowsMoved(this.base, false);
    const still = this.base.moved !== this.frame;
    for (let i = 0; i < this.tables.length; i++) {
      const published = this.tables[i];
      const found = published === this.base ? ofActors : published.look(this.frame, truth);
      const behind = returns && published.fallBehind();
      published.prune(this.frame);
      if (ofActors !== 'rows' && found !== 'rows' && !behind) {
        if (found === 'cells') published.captureFound(this.frame);
        continue;
      }
      const extension = this.isExtension[i];
      const own = published === this.base || (extension && still) ? fresh : this.rowsMoved(published, extension);
      published.captureAll(this.frame, own, truth);
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

  /** Notes that a row has gone, for the widest audience that knew it. Extensions go with their actor without a word. */
  private forget(published: PublishedTable, row: number, silent: boolean): void {
    published.forget(row);
    if (silent) return;
    const seen = new Set(published.columns.map((column) => this.toldSee(published, column, row)));
    const see = (['everyone', 'team', 'owner'] as const).find((v) => seen.has(v)) ?? 'server';
    published.latest = this.frame;
    published.removals.push({ frame: this.frame, row, see, owner: published.owner[row], team: published.team[row] });
  }

  /** A column's visibility for a row as it was last told: the row itself may hold something else by now. */
  private toldSee(published: PublishedTable, { spec, fixed }: PublishedColumn, row: number): Visibility {
    if (fixed !== undefined) return fixed;
    const { column: name, of } = spec.see as PerEntry<Visibility>;
    const near = [published, this.base].map((table) => ({ table, at: placeOfColumn(table.table.spec.columns, name) }));
    const holder = near.find(({ at }) => at >= 0);
    return of[holder?.table.toldOf(holder.at, row) ?? 0] ?? 'server';
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

  private audiencesOf(viewer: Viewer): readonly Audience[] {
    if (viewer === 'truth') return [TRUTH];
    const owner = this.world.actors.rowOf(viewer.actor);
    const { team } = viewer;
    const own: Audience[] = owner < 0 ? [] : [{ see: 'owner', owner, team: -1 }];
    return [EVERYBODY, ...(team < 0 ? [] : [{ see: 'team' as const, owner: -1, team }]), ...own];
  }

  private chunk(audience: Audience, since: number): Uint8Array | undefined {
    const key = keyOf(audience) * (REMEMBERED_FRAMES + 2) + (since === 0 ? REMEMBERED_FRAMES + 1 : this.frame - since);
    if (!this.chunks.has(key)) {
      const { cells } = this;
      cells.length = 0;
      for (const published of this.tables) if (published.latest > since) this.writeTable(published, audience, since, cells);
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
  private writeTable(published: PublishedTable, audience: Audience, since: number, out: (number | string)[]): void {
    const start = out.length;
    out.push(published.index, 0);
    let removed = 0;
    if (since > 0)
      for (const removal of published.removals)
        if (removal.frame > since && isFor(audience, removal.see, removal.owner, removal.team)) {
          out.push(removal.row);
          removed++;
        }
    const columnCount = out.length;
    out.push(0);
    const rows = this.rowsFor(published, audience, since);
    let columns = 0;
    if (rows > 0) for (const column of published.columns) if (this.writeColumn(published, column, audience, since, rows, out)) columns++;
    if (removed === 0 && columns === 0) out.length = start;
    else {
      out[start + 1] = removed;
      out[columnCount] = columns;
    }
  }

  /** Finds the rows in which something changed that may be for an audience: how many they are; they stand in {@link rows}. */
  private rowsFor({ high, generation, owner, team, rowLatest }: PublishedTable, audience: Audience, since: number): number {
    if (this.rows.length < high) this.rows = new Int32Array(high * 2);
    let count = 0;
    for (let row = 0; row < high; row++)
      if (rowLatest[row] > since && generation[row] !== 0 && mayHave(audience, owner[row], team[row])) this.rows[count++] = row;
    return count;
  }

  /** Appends what an audience is told of a column. Returns whether that is anything. */
  private writeColumn(
    published: PublishedTable,
    column: PublishedColumn,
    audience: Audience,
    since: number,
    rows: number,
    out: (number | string)[],
  ): boolean {
    const { index, fixed } = column;
    if (published.columnLatest[index] <= since) return false;
    if (fixed !== undefined && !mayBeFor(audience, fixed)) return false;
    const start = out.length;
    out.push(index, 0);
    let previous = 0;
    let count = 0;
    const { owner, team, changed, told } = published;
    const cell = published.cellOf(index);
    const isText = column.spec.kind === 'text';
    for (let i = 0; i < rows; i++) {
      const row = this.rows[i];
      if (changed[cell + row] <= since) continue;
      if (!isFor(audience, fixed ?? published.seeOf(column, row), owner[row], team[row])) continue;
      const value = told[cell + row];
      out.push(row - previous, isText ? this.world.text(value) : value);
      previous = row;
      count++;
    }
    if (count === 0) out.length = start;
    else out[start + 1] = count;
    return count > 0;
  }
}

/** A number for each audience: a row and a team are below what a handle can say. */
function keyOf({ see, owner, team }: Audience): number {
  return see === 'owner' ? 2 + 2 * owner : see === 'team' ? 3 + 2 * team : see === 'everyone' ? 0 : 1;
}
