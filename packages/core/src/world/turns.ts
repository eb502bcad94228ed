import { hashText, rollOf } from './hash.js';
import { ROW_MASK } from './columns.js';
import type { Table } from './table.js';
import type { Command } from './commands.js';
import type { World } from './world.js';

/** What the luck is for that says who comes first. */
const TURN = hashText('who comes first in a tick');

/** Up to so many are sorted by putting each in its place. */
const FEW = 32;

/**
 * Who comes first among those who act in one tick: drawn anew for each of them in each tick, so that nobody is favoured by
 * their place in a table. A function of the seed, the actor and the tick: nothing of it is remembered between ticks.
 */
export class Turns {
  private tick = -1;
  private seed = 0;
  private whose = new Int32Array(64);
  private drawn = new Float64Array(64);
  private readonly keys = new Float64Array(FEW);

  constructor(private readonly world: World) {}

  /** An actor's turn in this tick: from 0 (included) to 1 (excluded), the lowest comes first. `actor` is a handle, 0 for nobody. */
  of(actor: number): number {
    const { seed, tick } = this.world;
    if (this.tick !== tick || this.seed !== seed) {
      this.whose.fill(-1);
      [this.tick, this.seed] = [tick, seed];
    }
    const row = actor & ROW_MASK;
    if (row >= this.whose.length) this.grow(row + 1);
    if (this.whose[row] !== actor) {
      this.whose[row] = actor;
      this.drawn[row] = rollOf(seed, TURN, actor, tick);
    }
    return this.drawn[row];
  }

  private grow(rows: number): void {
    const whose = new Int32Array(rows * 2).fill(-1);
    const drawn = new Float64Array(rows * 2);
    whose.set(this.whose);
    drawn.set(this.drawn);
    [this.whose, this.drawn] = [whose, drawn];
  }

  /**
   * Sorts what acts in this tick by the turns of those who do it. What is of one and the same stays in its order.
   * @param actor the handle of who acts; 0 for nobody
   */
  sort<T>(list: T[], actor: (one: T) => number): T[] {
    const { length } = list;
    if (length < 2) return list;
    if (length > FEW) return list.sort((one, other) => this.of(actor(one)) - this.of(actor(other)));
    // Mostly there are a handful: each turn is asked for once, and nothing is made.
    const { keys } = this;
    for (let i = 0; i < length; i++) {
      const one = list[i];
      const key = this.of(actor(one));
      let at = i;
      for (; at > 0 && keys[at - 1] > key; at--) {
        keys[at] = keys[at - 1];
        list[at] = list[at - 1];
      }
      keys[at] = key;
      list[at] = one;
    }
    return list;
  }

  /** The handles of a table's rows, by the turns of those whom they belong to. */
  rows(table: Table): readonly number[] {
    return this.sort([...table.rows()], (row) => table.ownerOf(row)).map((row) => table.handle(row));
  }

  /** Commands, those who ask for something in the order of their turns. What is of nobody stays in its place. */
  commands(commands: readonly Command[]): readonly Command[] {
    if (commands.length < 2) return commands;
    const { world } = this;
    const asking = commands.map(({ kind, args }) => world.rules.registry.commands.get(kind)?.actor?.(world, args) ?? 0);
    const places = [...commands.keys()].filter((i) => asking[i] !== 0);
    const order = this.sort([...places], (i) => asking[i]);
    const sorted = [...commands];
    places.forEach((place, k) => (sorted[place] = commands[order[k]]));
    return sorted;
  }
}
