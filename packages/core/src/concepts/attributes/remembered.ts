import type { World } from '../../world/world.js';
import type { Rows } from './state.js';

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
  private version = -1;

  /** By row, the numbers of these rows, or of all where none are said; those whose row was touched since are worked out first. */
  of(world: World, rows: Rows | undefined, work: (row: number) => number): Float64Array {
    const { touched, touches } = world;
    const { version, high } = world.actors;
    // Nobody was touched since: most ticks are such.
    if (this.touches === touches && this.version === version) return this.values;
    this.touches = touches;
    this.version = version;
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
    const count = rows === undefined ? high : rows.length;
    for (let i = 0; i < count; i++) {
      const row = rows === undefined ? i : rows[i];
      const mark = row < touched.length ? touched[row] : 0;
      if (marks[row] === mark) continue;
      values[row] = work(row);
      marks[row] = mark;
    }
    return values;
  }
}
