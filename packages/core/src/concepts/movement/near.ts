import type { World } from '../../world/world.js';
import { arena } from '../arena/index.js';
import { isDown } from '../states/index.js';
import { movement } from './state.js';
import { cellOf, cellsAlong } from './cells.js';
import { bodyRadius } from './radius.js';

const NOBODY_NEAR: number[] = [];

/**
 * Who is where: bodies by the square of ground that their middle is on. Worked out from the tables when it is first asked
 * after something moved; it holds nothing that they do not.
 */
export class Near {
  private stale = true;
  private across = 1;
  private down = 1;
  private heads = new Int32Array(1);
  private nexts = new Int32Array(0);
  private largest = 0;
  private version = -1;
  /** The rows that were found, kept to be filled anew. */
  private found: number[] = [];
  private count = 0;
  private spoilt = 0;

  /** Bodies have moved, come or gone. */
  spoil(): void {
    this.stale = true;
    this.spoilt++;
  }

  /** Another number once somebody may be somewhere else than before. */
  standing(world: World): number {
    return this.spoilt + movement.in(world).table.version;
  }

  /** The rows of actors whose body touches a circle, ascending; those that are down are left out. */
  touching(world: World, x: number, y: number, radius: number): number[] {
    if (this.stale || this.version !== movement.in(world).table.version) this.build(world);
    const { table } = movement.in(world);
    const { x: xs, y: ys } = table.cells;
    const { live } = world.actors;
    const reach = radius + this.largest;
    const left = cellOf(x - reach, this.across);
    const right = cellOf(x + reach, this.across);
    const top = cellOf(y - reach, this.down);
    const bottom = cellOf(y + reach, this.down);
    this.count = 0;
    for (let cy = top; cy <= bottom; cy++)
      for (let cx = left; cx <= right; cx++)
        for (let row = this.heads[cy * this.across + cx]; row >= 0; row = this.nexts[row]) {
          if (live[row] === 0) continue;
          const dx = xs[row] - x;
          const dy = ys[row] - y;
          const apart = dx * dx + dy * dy;
          if (apart > reach * reach) continue;
          const own = radius + bodyRadius(world, row);
          if (apart <= own * own && !isDown(world, row)) this.found[this.count++] = row;
        }
    // Mostly nobody is there: nothing is made then.
    if (this.count === 0) return NOBODY_NEAR;
    if (this.count === 1) return [this.found[0]];
    return this.found.slice(0, this.count);
  }

  private build(world: World): void {
    const { table } = movement.in(world);
    const { x: xs, y: ys } = table.cells;
    const { live, high } = world.actors;
    const ground = arena.of(world.rules);
    this.across = cellsAlong(ground.width);
    this.down = cellsAlong(ground.height);
    const cells = this.across * this.down;
    if (this.heads.length !== cells) this.heads = new Int32Array(cells);
    this.heads.fill(-1);
    if (this.nexts.length < high) this.nexts = new Int32Array(Math.max(64, high * 2));
    this.largest = 0;
    for (let row = 0; row < high; row++) {
      if (live[row] === 0) continue;
      const at = cellOf(ys[row], this.down) * this.across + cellOf(xs[row], this.across);
      this.nexts[row] = this.heads[at];
      this.heads[at] = row;
      const radius = bodyRadius(world, row);
      if (radius > this.largest) this.largest = radius;
    }
    this.version = table.version;
    this.stale = false;
  }
}
