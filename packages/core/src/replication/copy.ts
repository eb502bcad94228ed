import { decode } from '@msgpack/msgpack';
import { z } from 'zod';
import { POWERS } from '../math/grid.js';
import type { TableDefinition } from '../world/define-table.js';
import type { Columns } from '../world/rows.js';
import type { WireSchema } from './schema.js';
import { type ToldEntries, toldEntries, type ToldParts, type ToldTable, toldTable } from './told.js';

// What a later version tells behind these is none of ours.
const frameShape = z.tuple(
  [z.int().min(1), z.int().min(0), z.int().min(0), z.array(z.instanceof(Uint8Array)), z.int().min(0).default(0)],
  z.unknown(),
);

export type CopyValue = number | string;
/** Called with the row, the value now and the one before; undefined where there was or is none. */
export type ChangeListener = (row: number, now: CopyValue | undefined, before: CopyValue | undefined) => void;

interface CopyTable {
  readonly name: string;
  readonly columns: ReadonlyMap<number, WireSchema['tables'][number]['columns'][number]>;
  readonly extensions: CopyTable[];
  rows: (Record<string, CopyValue> | undefined)[];
}

/**
 * What one seat has been told of the truth. Displays subscribe to a table and a column by name; how the values came
 * here is nobody else's business.
 * @public
 * @example
 * const copy = new Copy(wireSchemaOf(rules));
 * if (copy.apply(bytes)) acknowledge(copy.frame);
 */
export class Copy {
  /** The last frame taken in; acknowledge this one. */
  frame = 0;
  tick = 0;
  /** The number of the last input of this connection that the server has run; 0 for none yet. */
  heard = 0;
  private readonly tables = new Map<number, CopyTable>();
  private readonly byName = new Map<string, CopyTable>();
  private readonly listeners = new Map<string, Set<ChangeListener>>();

  constructor(readonly schema: WireSchema) {
    for (const spec of schema.tables) {
      const table: CopyTable = { name: spec.name, columns: new Map(spec.columns.map((c) => [c.column, c])), extensions: [], rows: [] };
      this.tables.set(spec.table, table);
      this.byName.set(spec.name, table);
    }
    for (const spec of schema.tables)
      if (spec.extends !== undefined) this.byName.get(spec.extends)?.extensions.push(this.byName.get(spec.name)!);
  }

  /**
   * Takes a frame in. Returns false, and changes nothing, where it builds on a frame that never arrived.
   * @throws when the bytes are no frame
   */
  apply(bytes: Uint8Array): boolean {
    return this.applyDecoded(decode(bytes));
  }

  /** As {@link apply}, for a frame that was decoded to tell it from other messages. */
  applyDecoded(value: unknown): boolean {
    const [frame, base, tick, chunks, heard] = frameShape.parse(value);
    if (base > this.frame || frame <= this.frame) return false;
    const before = this.listeners.size > 0 ? new Map<string, CopyValue | undefined>() : undefined;
    if (base === 0) for (const table of this.byName.values()) table.rows.forEach((_, row) => this.drop(table, row, before));
    const decoded = chunks.map((chunk) => decode(chunk) as CopyValue[]);
    // What went is taken out of all chunks before anything is put in: a row's number may be in use again.
    for (const cells of decoded) this.read(cells, before, true);
    for (const cells of decoded) this.read(cells, before, false);
    this.frame = frame;
    this.tick = tick;
    this.heard = heard;
    if (before) this.announce(before);
    return true;
  }

  private read(cells: readonly CopyValue[], before: Map<string, CopyValue | undefined> | undefined, removals: boolean): void {
    let at = 0;
    const next = () => cells[at++] as number;
    while (at < cells.length) {
      const table = this.tables.get(next());
      if (!table) throw new Error('A frame speaks of a table that was not introduced');
      for (let count = next(); count > 0; count--) {
        const row = next();
        if (removals) this.drop(table, row, before);
      }
      for (let columns = next(); columns > 0; columns--) {
        const column = table.columns.get(next());
        if (!column) throw new Error(`A frame speaks of a column of ${table.name} that was not introduced`);
        let row = 0;
        for (let count = next(); count > 0; count--) {
          row += next();
          const value = cells[at++];
          if (removals) continue;
          const told = column.kind === 'number' ? (value as number) / POWERS[column.decimals ?? 1] : value;
          this.put(table, row, column.name, column.kind === 'entry' ? this.entryId(column.chapter!, value as number) : told, before);
        }
      }
    }
  }

  private entryId(chapter: string, index: number): string {
    return this.schema.entries[chapter]?.[index] ?? '';
  }

  private put(
    table: CopyTable,
    row: number,
    column: string,
    value: CopyValue,
    before: Map<string, CopyValue | undefined> | undefined,
  ): void {
    // Without a prototype: an entry may be called as something that every object has.
    const cells = (table.rows[row] ??= Object.create(null) as Record<string, CopyValue>);
    this.note(before, table, row, column, cells[column]);
    cells[column] = value;
  }

  private drop(table: CopyTable, row: number, before: Map<string, CopyValue | undefined> | undefined): void {
    const cells = table.rows[row];
    if (cells) {
      if (before) for (const [column, value] of Object.entries(cells)) this.note(before, table, row, column, value);
      table.rows[row] = undefined;
    }
    for (const extension of table.extensions) this.drop(extension, row, before);
  }

  private note(
    before: Map<string, CopyValue | undefined> | undefined,
    table: CopyTable,
    row: number,
    column: string,
    value: CopyValue | undefined,
  ): void {
    if (!before || !this.listeners.has(`${table.name}/${column}`)) return;
    const key = `${table.name}/${column}/${row}`;
    if (!before.has(key)) before.set(key, value);
  }

  private announce(before: ReadonlyMap<string, CopyValue | undefined>): void {
    for (const [key, old] of before) {
      const [table, column, row] = key.split('/');
      const now = this.value(table, Number(row), column);
      if (now !== old) for (const listener of this.listeners.get(`${table}/${column}`) ?? []) listener(Number(row), now, old);
    }
  }

  /** What was told of a value, or undefined where nothing was. Numbers come as authored, entries by id. */
  value(table: string, row: number, column: string): CopyValue | undefined {
    return this.cells(table, row)?.[column];
  }

  /** What was told of a row by the names of its columns; undefined where nothing was. */
  cells(table: string, row: number): Readonly<Record<string, CopyValue>> | undefined {
    return this.byName.get(table)?.rows[row];
  }

  /** A table by its definition: rows with the names and types of the world's. */
  of<C extends Columns, O extends keyof C & string>(table: TableDefinition<C, O>): ToldTable<C> {
    return toldTable(this, table);
  }

  /** A table with columns for each entry, by its definition: numbers by the ids of entries. */
  entries<P extends string>(table: ToldParts<P>): ToldEntries<P> {
    return toldEntries(this, table);
  }

  /** The rows of a table that something was told of, ascending. */
  rows(table: string): readonly number[] {
    const rows: number[] = [];
    this.byName.get(table)?.rows.forEach((cells, row) => cells && rows.push(row));
    return rows;
  }

  /** Hears of each change of a column's values once a frame, with old and new. Returns how to stop. */
  subscribe(table: string, column: string, listener: ChangeListener): () => void {
    const key = `${table}/${column}`;
    const set = this.listeners.get(key) ?? new Set();
    this.listeners.set(key, set.add(listener));
    return () => {
      set.delete(listener);
      if (set.size === 0) this.listeners.delete(key);
    };
  }

  /** All that was told, for comparing with what should have been. */
  contents(): Record<string, Record<number, Record<string, CopyValue>>> {
    const all: Record<string, Record<number, Record<string, CopyValue>>> = {};
    for (const table of this.byName.values())
      for (const row of this.rows(table.name))
        (all[table.name] ??= {})[row] = Object.fromEntries(Object.entries(table.rows[row]!).sort(([a], [b]) => (a < b ? -1 : 1)));
    return all;
  }
}
