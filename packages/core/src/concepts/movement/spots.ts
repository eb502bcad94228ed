import type { World } from '../../world/world.js';
import { arena } from '../arena/index.js';
import { cellOf, cellsAlong } from './cells.js';
import { bodyRadius } from './radius.js';
import { movement } from './state.js';

/** A round place that stays where it is. */
export interface Spot {
  readonly x: number;
  readonly y: number;
  readonly radius: number;
}

/**
 * Places that stay where they are, by the squares of ground that they cover. Bodies are few and places are many: each body is
 * looked up among the places, so that a place where nobody is costs nothing. Worked out from the tables and the rules; it holds
 * nothing that they do not.
 */
export class Spots {
  private across = 1;
  private down = 1;
  private spots: readonly (Spot | undefined)[] = [];
  private cells: (number[] | undefined)[] = [];
  private marks = new Uint8Array(0);

  /** Has the places be these; a number without one is never found. */
  lay(world: World, spots: readonly (Spot | undefined)[]): void {
    const { width, height } = arena.of(world.rules);
    this.across = cellsAlong(width);
    this.down = cellsAlong(height);
    this.spots = spots;
    this.marks = new Uint8Array(spots.length);
    this.cells = Array.from({ length: this.across * this.down });
    spots.forEach((spot, i) => {
      if (!spot) return;
      const { x, y, radius } = spot;
      for (let cy = cellOf(y - radius, this.down); cy <= cellOf(y + radius, this.down); cy++)
        for (let cx = cellOf(x - radius, this.across); cx <= cellOf(x + radius, this.across); cx++)
          (this.cells[cy * this.across + cx] ??= []).push(i);
    });
  }

  /** By number, whether a body may touch the place: 1 where it does; those that are down count as well. Until it is asked again. */
  touched(world: World): Uint8Array {
    const { marks, spots, cells, across, down } = this;
    if (spots.length === 0) return marks;
    marks.fill(0);
    const { x: xs, y: ys } = movement.in(world).table.cells;
    const { live, high } = world.actors;
    for (let row = 0; row < high; row++) {
      if (live[row] === 0) continue;
      const x = xs[row];
      const y = ys[row];
      const own = bodyRadius(world, row);
      const right = cellOf(x + own, across);
      const bottom = cellOf(y + own, down);
      for (let cy = cellOf(y - own, down); cy <= bottom; cy++)
        for (let cx = cellOf(x - own, across); cx <= right; cx++) {
          const here = cells[cy * across + cx];
          if (here === undefined) continue;
          for (const i of here) {
            const spot = spots[i]!;
            const dx = spot.x - x;
            const dy = spot.y - y;
            const most = spot.radius + own;
            if (dx * dx + dy * dy <= most * most) marks[i] = 1;
          }
        }
    }
    return marks;
  }
}
