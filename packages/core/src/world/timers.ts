import { defineTable, type TableOf } from './define-table.js';
import type { World } from './world.js';

export const timerTable = defineTable({
  name: 'timers',
  hidden: true,
  columns: {
    due: { kind: 'tick', see: 'server' },
    handler: { kind: 'int', see: 'server' },
    actor: { kind: 'actor', see: 'server' },
    a: { kind: 'int', see: 'server' },
  },
});

/** What is to happen at a tick to come, in the order of the table in which it stands. */
export class Timers {
  /** The soonest tick at which one is due, as of a version of the table. */
  private next = { version: -1, tick: 0 };

  constructor(
    private readonly world: World,
    private readonly table: TableOf<typeof timerTable>,
  ) {}

  set(handler: number, ticks: number, actor: number, a: number): number {
    const { table } = this;
    return table.handle(table.insert({ due: this.world.tick + Math.max(1, ticks), handler, actor, a }));
  }

  cancel(timer: number): void {
    const row = timer === 0 ? -1 : this.table.rowOf(timer);
    if (row >= 0) this.table.remove(row);
  }

  fire(): void {
    const { world, table } = this;
    if (this.next.version === table.version && this.next.tick > world.tick) return;
    const { cells } = table;
    let soonest = Number.MAX_SAFE_INTEGER;
    const now: number[] = [];
    for (let row = 0; row < table.high; row++) {
      if (table.live[row] === 0) continue;
      const due = cells.due[row];
      if (due <= world.tick) now.push(row);
      else if (due < soonest) soonest = due;
    }
    for (const timer of world.turns.sort(now, (row) => cells.actor[row]).map((row) => table.handle(row))) {
      const row = table.rowOf(timer);
      // What fired before it may have cancelled it.
      if (row < 0) continue;
      const [handler, actor, a] = [cells.handler[row], cells.actor[row], cells.a[row]];
      table.remove(row);
      world.rules.registry.timers[handler].run(world, actor, a);
    }
    // What fired may have set others: then the next tick looks again.
    this.next = { version: now.length > 0 ? -1 : table.version, tick: soonest };
  }
}
