import type { TableSpec } from './columns.js';
import { bytesOf, TableMemory } from './memory.js';
import type { Table, TableContent } from './table.js';

/** What a block says of each table before all cells: how many rows were ever used, the first that is free, how many are live. */
const COUNTS = 3;
const HEAD_BYTES = COUNTS * 4;

/** A table that lies in a block: its columns, for how many rows there is room, and where it begins. */
export interface Place {
  readonly spec: Pick<TableSpec, 'name' | 'columns'>;
  readonly capacity: number;
  /** In bytes. */
  readonly at: number;
}

/** How tables lie in a block. */
export interface Layout {
  readonly places: readonly Place[];
  readonly bytes: number;
}

/** All tables of a world, copied. */
export interface BlockCopy {
  readonly layout: Layout;
  readonly bytes: Uint8Array<ArrayBuffer>;
}

/** How tables with room for so many rows lie in a block: one behind the other, behind what is counted of each. */
export function layoutOf(tables: readonly Omit<Place, 'at'>[]): Layout {
  // Numbers of 8 bytes begin at multiples of that.
  let at = Math.ceil((tables.length * HEAD_BYTES) / 8) * 8;
  const places = tables.map(({ spec, capacity }): Place => {
    const place = { spec, capacity, at };
    at += bytesOf(spec.columns, capacity);
    return place;
  });
  return { places, bytes: at };
}

/**
 * The block in which all tables of a world lie. While a tick runs a table that grows stands by itself; whoever asks for a copy
 * has all gathered first. So a copy is one pass over the bytes, and so is putting it back.
 */
export class Block {
  private layout: Layout | undefined;
  private buffer = new ArrayBuffer(0);

  constructor(private readonly tables: readonly Table[]) {}

  /** All tables as they are, in one copy that nothing changes any more. */
  copy(): BlockCopy {
    const layout = this.gathered();
    const counts = new Int32Array(this.buffer, 0, this.tables.length * COUNTS);
    for (let i = 0, at = 0; i < this.tables.length; i++) {
      const table = this.tables[i];
      counts[at++] = table.high;
      counts[at++] = table.firstFree;
      counts[at++] = table.count;
    }
    return { layout, bytes: new Uint8Array(this.buffer.slice(0)) };
  }

  /** Whether the tables lie as they do in a copy: none has grown since, so that putting it back moves none. */
  liesAs({ layout }: BlockCopy): boolean {
    return this.gathered() === layout;
  }

  /**
   * Has the tables be what they were when a copy was made, of this world or of another. What the copy lacks is empty.
   * @param roomy whether tables that have more room than they had then keep it
   */
  restore({ layout, bytes }: BlockCopy, roomy = false): void {
    const { tables } = this;
    const own = !roomy && layout.places.length === tables.length && tables.every(({ spec }, i) => layout.places[i].spec === spec);
    if (own) {
      this.lie(layout);
      new Uint8Array(this.buffer).set(bytes);
      const counts = new Int32Array(this.buffer, 0, tables.length * COUNTS);
      for (let i = 0, at = 0; i < tables.length; i++, at += COUNTS) tables[i].come(counts[at], counts[at + 1], counts[at + 2]);
      return;
    }
    const contents = contentsOf({ layout, bytes });
    for (const table of tables) {
      const content = contents.get(table.spec.name);
      if (content) table.restore(content);
      else table.followBase();
    }
  }

  private gathered(): Layout {
    const { tables, layout } = this;
    if (layout && this.holds(layout)) return layout;
    const next = layoutOf(tables.map(({ spec, capacity }) => ({ spec, capacity })));
    const buffer = new ArrayBuffer(next.bytes);
    tables.forEach((table, i) => table.moveTo(buffer, next.places[i].at));
    this.buffer = buffer;
    return (this.layout = next);
  }

  /** Whether no table has grown since it was put there. */
  private holds({ places }: Layout): boolean {
    for (let i = 0; i < places.length; i++) if (!this.tables[i].isIn(this.buffer, places[i].at)) return false;
    return true;
  }

  /** Has all tables lie as a layout says, whatever they hold. */
  private lie(layout: Layout): void {
    if (this.layout === layout && this.holds(layout)) return;
    const buffer = new ArrayBuffer(layout.bytes);
    this.tables.forEach((table, i) => table.lieAt(buffer, layout.places[i].at, layout.places[i].capacity));
    this.buffer = buffer;
    this.layout = layout;
  }
}

/** What tables hold in a copy, by their names. */
function contentsOf({ layout, bytes }: BlockCopy): ReadonlyMap<string, TableContent> {
  const counts = new Int32Array(bytes.buffer, 0, layout.places.length * COUNTS);
  return new Map(
    layout.places.map(({ spec, capacity, at }, i) => {
      const memory = new TableMemory(spec.columns);
      memory.lieAt(bytes.buffer, at, capacity);
      const columns = Object.fromEntries(spec.columns.map(({ name }, k) => [name, memory.cells(k)]));
      const [high, freeHead] = counts.subarray(i * COUNTS);
      return [spec.name, { high, freeHead, live: memory.live(), generation: memory.generation(), nextFree: memory.nextFree(), columns }];
    }),
  );
}
