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

/** A body as it was when it was last looked up, and the places that it touched there, by number. */
interface Body {
  x: number;
  y: number;
  radius: number;
  readonly touches: number[];
}
const NOTHING: readonly number[] = [];

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
  private bodies: (Body | undefined)[] = [];

  /** Has the places be these; a number without one is never found. */
  lay(world: World, spots: readonly (Spot | undefined)[]): void {
    const { width, height } = arena.of(world.rules);
    this.across = cellsAlong(width);
    this.down = cellsAlong(height);
    this.spots = spots;
    this.marks = new Uint8Array(spots.length);
    this.bodies = [];
    // Most ground is bare: squares are made as places cover them.
    this.cells = [];
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
    const { marks, spots, bodies } = this;
    if (spots.length === 0) return marks;
    marks.fill(0);
    const { table, radii } = movement.in(world);
    const { x: xs, y: ys } = table.cells;
    const { live, high } = world.actors;
    const kinds = world.actors.cells.type;
    for (let row = 0; row < high; row++) {
      if (live[row] === 0) continue;
      const fixed = radii[kinds[row]];
      const radius = typeof fixed === 'number' ? fixed : bodyRadius(world, row);
      const body = (bodies[row] ??= { x: NaN, y: NaN, radius: 0, touches: [] });
      // A body that stands where it stood touches what it touched.
      if (body.x !== xs[row] || body.y !== ys[row] || body.radius !== radius) {
        body.x = xs[row];
        body.y = ys[row];
        body.radius = radius;
        this.lookUp(body);
      }
      for (const i of body.touches) marks[i] = 1;
    }
    return marks;
  }

  private lookUp({ x, y, radius, touches }: Body): void {
    const { spots, cells, across, down } = this;
    const right = cellOf(x + radius, across);
    const bottom = cellOf(y + radius, down);
    touches.length = 0;
    for (let cy = cellOf(y - radius, down); cy <= bottom; cy++)
      for (let cx = cellOf(x - radius, across); cx <= right; cx++)
        for (const i of cells[cy * across + cx] ?? NOTHING) {
          const spot = spots[i]!;
          const dx = spot.x - x;
          const dy = spot.y - y;
          const most = spot.radius + radius;
          if (dx * dx + dy * dy <= most * most) touches.push(i);
        }
  }
}
