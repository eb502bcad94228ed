import { rollOfStream, streamOf } from './hash.js';
import { ROW_MASK } from './columns.js';
import { defineTable, type TableOf } from './define-table.js';
import type { Table } from './table.js';

/** How many numbers were drawn of each stream of luck. */
export const rollTable = defineTable({
  name: 'rolls',
  hidden: true,
  columns: {
    purpose: { kind: 'int', see: 'server' },
    whose: { kind: 'int', see: 'server' },
    count: { kind: 'int', see: 'server' },
  },
});

/** Places of the small store in front of the index; a power of two. */
const SLOTS = 256;
/** The number of streams at which those of actors that have gone are first taken out. */
const FIRST_SWEEP = 1024;

/**
 * The world's luck: how many numbers were drawn of each stream stands in the table of rolls; here is what is derived from
 * that. The rows by what they are for and whose they are are looked up anew where the table is another than they were
 * taken from; what is rolled again and again is found without looking it up, with what its numbers have in common.
 */
export class Luck {
  private version = -1;
  private seed = 0;
  private readonly rows = new Map<number, Map<number, number>>();
  private readonly slotPurpose = new Int32Array(SLOTS);
  private readonly slotWhose = new Int32Array(SLOTS);
  private readonly slotRow = new Int32Array(SLOTS).fill(-1);
  private readonly slotStream = new Int32Array(SLOTS);

  constructor(
    private readonly rolls: TableOf<typeof rollTable>,
    private readonly actors: Table,
  ) {}

  /** The next random number of this purpose and owner: from 0 (included) to 1 (excluded). */
  next(seed: number, purpose: number, whose: number): number {
    if (this.version !== this.rolls.version || this.seed !== seed) this.rebuild(seed);
    const slot = (purpose ^ whose) & (SLOTS - 1);
    let row = this.slotRow[slot];
    if (row < 0 || this.slotPurpose[slot] !== purpose || this.slotWhose[slot] !== whose) row = this.take(slot, purpose, whose);
    return rollOfStream(this.slotStream[slot], this.rolls.cells.count[row]++);
  }

  /** Puts a stream into a slot; one that nothing was drawn of yet begins. */
  private take(slot: number, purpose: number, whose: number): number {
    let row = this.rows.get(purpose)?.get(whose);
    if (row === undefined) {
      const { count } = this.rolls;
      // At powers of two, so that it does not matter when a world was stored and restored, and costs little in the long run.
      if (count >= FIRST_SWEEP && (count & (count - 1)) === 0) this.sweep();
      row = this.rolls.insert({ purpose, whose });
      this.note(purpose, whose, row);
      this.version = this.rolls.version;
    }
    this.slotPurpose[slot] = purpose;
    this.slotWhose[slot] = whose;
    this.slotRow[slot] = row;
    this.slotStream[slot] = streamOf(this.seed, purpose, whose);
    return row;
  }

  /** Takes out the streams of actors that have gone: nobody draws of them again. */
  private sweep(): void {
    const { rolls, actors } = this;
    const whose = rolls.cells.whose;
    for (let row = 0; row < rolls.high; row++)
      if (rolls.live[row] === 1 && whose[row] > ROW_MASK && actors.rowOf(whose[row]) < 0) rolls.remove(row);
    this.rebuild(this.seed);
  }

  private note(purpose: number, whose: number, row: number): void {
    const of = this.rows.get(purpose);
    if (of) of.set(whose, row);
    else this.rows.set(purpose, new Map([[whose, row]]));
  }

  private rebuild(seed: number): void {
    this.rows.clear();
    this.slotRow.fill(-1);
    const { rolls } = this;
    const { purpose, whose } = rolls.cells;
    for (let row = 0; row < rolls.high; row++) if (rolls.live[row] === 1) this.note(purpose[row], whose[row], row);
    this.version = rolls.version;
    this.seed = seed;
  }
}
