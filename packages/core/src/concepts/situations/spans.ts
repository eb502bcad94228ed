import { effectsTable } from '../effects/tables.js';
import { statusesTable } from '../statuses/tables.js';
import { idOf, labelOf, type Rules } from '../../ruleset/rules.js';
import type { GameEvent } from '../../world/events.js';
import type { World } from '../../world/world.js';
import type { Span } from '../../workbench/evidence.js';

interface Running {
  from: number;
  to: number;
  label: string;
  kind: Span['kind'];
  ended?: string;
  stacks: number;
  id: string;
}

const ENDINGS: Readonly<Record<string, string>> = {
  ranOut: 'ran out',
  used: 'used up',
  removed: 'removed',
  ownerGone: 'gone with its bearer',
};

/** Watches instances of effects and statuses come and go, as they stand in the world's tables. */
export class SpanKeeper {
  private readonly running = new Map<string, Running>();
  private readonly done: Running[] = [];

  constructor(private readonly rules: Rules) {}

  note(world: World, actor: number, row: number, events: readonly GameEvent[]): void {
    const t = world.tick / this.rules.tickRate;
    const present = new Set<string>();
    const table = effectsTable.in(world);
    const { effect: kinds, stacks } = table.cells;
    for (const at of table.rowsOf(actor)) {
      const key = `effect ${table.handle(at)}`;
      present.add(key);
      const id = idOf(this.rules, 'effects', kinds[at]);
      this.on(key, t, id, labelOf(this.rules, 'effects', id), 'effect').stacks = stacks[at];
    }
    if (row >= 0)
      statusesTable.in(world).columns.forEach((column, i) => {
        if (column.data[row] === 0) return;
        present.add(`status ${i}`);
        const id = idOf(this.rules, 'statuses', i);
        this.on(`status ${i}`, t, id, labelOf(this.rules, 'statuses', id), 'status');
      });
    for (const [key, span] of this.running) {
      if (present.has(key)) continue;
      span.to = t;
      const end = events.find((event) => event.name === 'effectEnded' && event.data['effect'] === span.id);
      if (span.kind === 'effect' && end) span.ended = ENDINGS[String(end.data['reason'])];
      this.running.delete(key);
      this.done.push(span);
    }
  }

  private on(key: string, t: number, id: string, label: string, kind: Span['kind']): Running {
    const known = this.running.get(key);
    if (known) {
      known.to = t;
      return known;
    }
    const span = { from: t, to: t, label, kind, stacks: 1, id };
    this.running.set(key, span);
    return span;
  }

  all(): readonly Span[] {
    return [...this.done, ...this.running.values()]
      .sort((a, b) => a.from - b.from)
      .map(({ from, to, label, kind, ended, stacks }) => ({
        from,
        to,
        label,
        kind,
        ...(ended !== undefined && { ended }),
        ...(stacks > 1 && { stacks }),
      }));
  }
}
