import type { Table } from './table.js';

/** Places of the small store in front of the index; a power of two. */
const SLOTS = 256;

/**
 * The rows of the table of rolls by what they are for and whose they are: derived, and built anew where the table is another
 * than it was built from. What is rolled again and again is found without looking it up.
 */
export class RollIndex {
  private version = -1;
  private readonly rows = new Map<number, Map<number, number>>();
  private readonly slots = { purpose: new Int32Array(SLOTS), whose: new Int32Array(SLOTS), row: new Int32Array(SLOTS).fill(-1) };

  /** The row, or -1 where nothing was rolled for that yet. */
  rowOf(rolls: Table, purpose: number, whose: number): number {
    if (this.version !== rolls.version) this.rebuild(rolls);
    const { slots } = this;
    const slot = (purpose ^ whose) & (SLOTS - 1);
    if (slots.purpose[slot] === purpose && slots.whose[slot] === whose && slots.row[slot] >= 0) return slots.row[slot];
    const row = this.rows.get(purpose)?.get(whose) ?? -1;
    if (row >= 0) {
      slots.purpose[slot] = purpose;
      slots.whose[slot] = whose;
      slots.row[slot] = row;
    }
    return row;
  }

  /** Notes a row that was just added. */
  note(rolls: Table, purpose: number, whose: number, row: number): void {
    const of = this.rows.get(purpose);
    if (of) of.set(whose, row);
    else this.rows.set(purpose, new Map([[whose, row]]));
    this.version = rolls.version;
  }

  private rebuild(rolls: Table): void {
    this.rows.clear();
    this.slots.row.fill(-1);
    const [purpose, whose] = ['purpose', 'whose'].map((name) => rolls.column(name).data);
    for (let row = 0; row < rolls.high; row++) if (rolls.live[row] === 1) this.note(rolls, purpose[row], whose[row], row);
    this.version = rolls.version;
  }
}
