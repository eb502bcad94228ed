import { decode, encode } from '@msgpack/msgpack';
import { Block, type Layout, layoutOf, type Place } from './block.js';
import type { ColumnSpec } from './columns.js';
import { isWide } from './memory.js';
import { packed, packedList } from './packed.js';
import { Table } from './table.js';
import type { Snapshot } from './world.js';

/** Rises whenever what is stored would be read otherwise. What the version before stored is read as well, and no older one. */
export const STORED_VERSION = 2;

type StoredPlace = readonly [name: string, capacity: number, columns: readonly string[], wide: Uint8Array];
type StoredTable = readonly [
  high: number,
  freeHead: number,
  live: Uint8Array,
  generation: Uint8Array,
  nextFree: Uint8Array,
  columns: Readonly<Record<string, readonly [wide: number, cells: Uint8Array]>>,
];

// What was decoded lies anywhere in its buffer; numbers begin at multiples of their size, and have to be copies.
const copied = (bytes: Uint8Array) => new Uint8Array(bytes);
const wholeNumbers = (bytes: Uint8Array) => new Int32Array(copied(bytes).buffer);
const numbers = (bytes: Uint8Array) => new Float64Array(copied(bytes).buffer);

/** Snapshots of a world lie the same, until it has grown; the tables of many worlds under rules that follow from one another do. */
const known = new WeakMap<Layout, Uint8Array>();
const places = new WeakMap<Place['spec'], Map<number, Uint8Array>>();

function storedPlace({ spec, capacity }: Place): Uint8Array {
  const stored = places.get(spec) ?? new Map<number, Uint8Array>();
  places.set(spec, stored);
  const bytes = stored.get(capacity) ?? packed(placeOf(spec, capacity));
  stored.set(capacity, bytes);
  return bytes;
}

const placeOf = ({ name, columns }: Place['spec'], capacity: number): StoredPlace => {
  return [name, capacity, columns.map((column) => column.name), Uint8Array.from(columns, (column) => (isWide(column) ? 1 : 0))];
};

function storedLayout(layout: Layout): Uint8Array {
  const stored = known.get(layout) ?? packedList(layout.places.map(storedPlace));
  known.set(layout, stored);
  return stored;
}

/** A column of which is known how wide it is: nothing else is asked of one that is only read from. */
const column = (name: string, wide: boolean): ColumnSpec => ({ name, kind: wide ? 'number' : 'int', see: 'server' });

function readLayout(stored: Uint8Array): Layout {
  const places = decode(stored) as readonly StoredPlace[];
  return layoutOf(
    places.map(([name, capacity, columns, wide]) => ({
      spec: { name, columns: columns.map((one, i) => column(one, wide[i] === 1)) },
      capacity,
    })),
  );
}

/**
 * A snapshot as bytes (MessagePack), for keeping: `[version, header, texts, layout, block]`, the layout again MessagePack: for
 * each table its name, for how many rows there is room, the names of its columns, and which of them are numbers of 8 bytes.
 * Byte order is that of the machine: all that this runs on are little-endian.
 * @public
 * @example
 * await writeFile('room.bin', storeSnapshot(world.snapshot()));
 */
export function storeSnapshot({ header, texts, layout, bytes }: Snapshot): Uint8Array {
  return encode([STORED_VERSION, header, texts, storedLayout(layout), bytes]);
}

/**
 * The snapshot that bytes hold.
 * @throws RangeError where they were stored by a version that is not read any more, or hold no snapshot
 * @public
 * @example
 * const world = World.restore(rules, readSnapshot(await readFile('room.bin')));
 */
export function readSnapshot(stored: Uint8Array): Snapshot {
  const [version, header, texts, tables, bytes] = decode(stored) as [number, number[], string[], unknown, Uint8Array];
  if (version === 1) return { header, texts, ...tableByTable(tables as Readonly<Record<string, StoredTable>>) };
  if (version !== STORED_VERSION) throw new RangeError(`A snapshot of version 1 or ${STORED_VERSION} is expected; this is ${version}`);
  const layout = readLayout(tables as Uint8Array);
  if (bytes.length !== layout.bytes) throw new RangeError(`A block of ${layout.bytes} bytes is expected; this has ${bytes.length}`);
  return { header, texts, layout, bytes: copied(bytes) };
}

/** What version 1 stored: each column of each table by itself. */
function tableByTable(stored: Readonly<Record<string, StoredTable>>) {
  const tables = Object.entries(stored).map(([name, [high, freeHead, live, generation, nextFree, columns]]) => {
    const table = new Table({ name, columns: Object.entries(columns).map(([of, [wide]]) => column(of, wide === 1)) });
    table.restore({
      high,
      freeHead,
      live: copied(live),
      generation: wholeNumbers(generation),
      nextFree: wholeNumbers(nextFree),
      columns: Object.fromEntries(
        Object.entries(columns).map(([of, [wide, cells]]) => [of, wide === 1 ? numbers(cells) : wholeNumbers(cells)]),
      ),
    });
    return table;
  });
  return new Block(tables).copy();
}
