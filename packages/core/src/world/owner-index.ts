import { ROW_MASK } from './columns.js';

/**
 * The rows of a table by the actor that they belong to, in ascending order. Derived: it is built from the table where somebody
 * asks for it, and kept from then on. What belongs to nobody, whose handle is 0, is not in it.
 */
export class OwnerIndex {
  /** One more than an owner's first row, by the owner's own row; 0 for none. */
  private first = new Int32Array(16);
  /** One more than the row that follows in its owner's list; 0 ends it. */
  private following = new Int32Array(16);

  /** The first row of the list in which an owner's rows are, or -1: rows of who had the owner's place before it may stand between them. */
  begin(owner: number): number {
    const at = owner & ROW_MASK;
    return owner === 0 || at >= this.first.length ? -1 : this.first[at] - 1;
  }

  /** The row that follows in the same list, or -1. */
  next(row: number): number {
    return this.following[row] - 1;
  }

  add(row: number, owner: number): void {
    if (owner === 0) return;
    const at = owner & ROW_MASK;
    if (at >= this.first.length) this.first = grown(this.first, at);
    if (row >= this.following.length) this.following = grown(this.following, row);
    const { first, following } = this;
    if (first[at] === 0 || first[at] > row + 1) {
      following[row] = first[at];
      first[at] = row + 1;
      return;
    }
    let before = first[at] - 1;
    while (following[before] !== 0 && following[before] <= row) before = following[before] - 1;
    following[row] = following[before];
    following[before] = row + 1;
  }

  remove(row: number, owner: number): void {
    if (owner === 0) return;
    const { first, following } = this;
    const at = owner & ROW_MASK;
    if (first[at] === row + 1) first[at] = following[row];
    else {
      let before = first[at] - 1;
      while (before >= 0 && following[before] !== row + 1) before = following[before] - 1;
      if (before >= 0) following[before] = following[row];
    }
    following[row] = 0;
  }
}

function grown(list: Int32Array, to: number): Int32Array<ArrayBuffer> {
  const next = new Int32Array(Math.max(to + 1, list.length * 2));
  next.set(list);
  return next;
}
