import { decode, encode } from '@msgpack/msgpack';
import type { TableContent } from './table.js';
import type { Snapshot } from './world.js';

/** Rises whenever what is stored would be read otherwise: what an older version stored is not read. */
export const STORED_VERSION = 1;

type Cells = Float64Array | Int32Array;
type StoredTable = readonly [
  high: number,
  freeHead: number,
  live: Uint8Array,
  generation: Uint8Array,
  nextFree: Uint8Array,
  columns: object,
];

const bytesOf = (cells: Cells | Uint8Array) => new Uint8Array(cells.buffer, cells.byteOffset, cells.byteLength);
// What was decoded lies anywhere in its buffer; typed columns begin at multiples of their size, and have to be copies.
const copied = (bytes: Uint8Array) => new Uint8Array(bytes);
const wholeNumbers = (bytes: Uint8Array) => new Int32Array(copied(bytes).buffer);
const numbers = (bytes: Uint8Array) => new Float64Array(copied(bytes).buffer);

/**
 * A snapshot as bytes (MessagePack), for keeping. Byte order is that of the machine: all that this runs on are little-endian.
 * @public
 * @example
 * await writeFile('room.bin', storeSnapshot(world.snapshot()));
 */
export function storeSnapshot({ header, texts, tables }: Snapshot): Uint8Array {
  const stored = Object.entries(tables).map(([name, { high, freeHead, live, generation, nextFree, columns }]) => [
    name,
    [
      high,
      freeHead,
      live,
      bytesOf(generation),
      bytesOf(nextFree),
      Object.fromEntries(
        Object.entries(columns).map(([column, cells]) => [column, [cells instanceof Float64Array ? 1 : 0, bytesOf(cells)]]),
      ),
    ],
  ]);
  return encode([STORED_VERSION, header, texts, Object.fromEntries(stored) as object]);
}

/**
 * The snapshot that bytes hold.
 * @throws RangeError where they were stored by another version, or hold no snapshot
 * @public
 * @example
 * const world = World.restore(rules, readSnapshot(await readFile('room.bin')));
 */
export function readSnapshot(bytes: Uint8Array): Snapshot {
  const [version, header, texts, tables] = decode(bytes) as [number, number[], string[], Record<string, StoredTable>];
  if (version !== STORED_VERSION) throw new RangeError(`A snapshot of version ${STORED_VERSION} is expected; this is ${version}`);
  return {
    header,
    texts,
    tables: Object.fromEntries(
      Object.entries(tables).map(([name, [high, freeHead, live, generation, nextFree, columns]]): [string, TableContent] => [
        name,
        {
          high,
          freeHead,
          live: copied(live),
          generation: wholeNumbers(generation),
          nextFree: wholeNumbers(nextFree),
          columns: Object.fromEntries(
            Object.entries(columns as Record<string, readonly [number, Uint8Array]>).map(([column, [kind, cells]]) => [
              column,
              kind === 1 ? numbers(cells) : wholeNumbers(cells),
            ]),
          ),
        },
      ]),
    ),
  };
}
