import type { World } from '../../world/world.js';

// Most are never asked for: of thousands of attributes those who are there have a few.
const NO_VALUES = new Float64Array(0);
const NO_MARKS = new Int32Array(0);

/**
 * Numbers worked out for rows of actors, remembered until the row is touched again. Derived from the world's state and
 * never part of it: a restored world works them out anew and comes to the same.
 */
export class Remembered {
  private values = NO_VALUES;
  private marks = NO_MARKS;
  private touches = -1;
  private high = -1;

  /** The numbers of all rows below `high`; those whose row was touched since are worked out first. */
  upTo(world: World, high: number, work: (row: number) => number): Float64Array {
    const { touched, touches } = world;
    // Nobody was touched since: most ticks are such.
    if (this.touches === touches && this.high === high) return this.values;
    this.touches = touches;
    this.high = high;
    if (this.values.length < high) {
      const capacity = Math.max(16, high * 2);
      const values = new Float64Array(capacity);
      const marks = new Int32Array(capacity).fill(-1);
      values.set(this.values);
      marks.set(this.marks);
      this.values = values;
      this.marks = marks;
    }
    const { values, marks } = this;
    for (let row = 0; row < high; row++) {
      const mark = row < touched.length ? touched[row] : 0;
      if (marks[row] === mark) continue;
      values[row] = work(row);
      marks[row] = mark;
    }
    return values;
  }
}
