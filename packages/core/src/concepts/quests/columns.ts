import type { PerEntry, TableSpec } from '../../world/columns.js';
import type { Column, Table } from '../../world/table.js';
import type { World } from '../../world/world.js';
import type { CompiledQuests } from './compile.js';
import type { QuestEntry } from './schema.js';

/** How a player stands to a quest. What is kept of it are these numbers: new ones come at the end. */
export const STANDINGS = ['none', 'active', 'ready', 'done', 'failed', 'declined', 'abandoned'] as const;
const STANDING_WORDS = ['not begun', 'on it', 'to be handed in', 'done', 'failed', 'declined', 'given up'];
export type Standing = (typeof STANDINGS)[number];
export const [NONE, ACTIVE, READY, DONE, FAILED, DECLINED, ABANDONED] = STANDINGS.map((_, i) => i);
/** What the log says of one that is offered just now, however it stood before. */
export const OFFERED = STANDINGS.length;

/** How a player stands to a step. */
export const AHEAD = 0;
export const CURRENT = 1;
export const PASSED = 2;

/** Names of a quest's columns. A dot is no part of an id. */
export const columnsOf = {
  standing: (quest: string) => quest,
  times: (quest: string) => `${quest}.times`,
  again: (quest: string) => `${quest}.again`,
  left: (quest: string) => `${quest}.left`,
  until: (quest: string) => `${quest}.until`,
  at: (quest: string) => `${quest}.at`,
  offered: (quest: string) => `${quest}.offered`,
  row: (quest: string) => `${quest}.row`,
  step: (quest: string, step: string) => `${quest}.step.${step}`,
  goal: (quest: string, goal: string) => `${quest}.goal.${goal}`,
  goalRow: (quest: string, goal: string) => `${quest}.goal.${goal}.row`,
};

export interface QuestCells {
  readonly standing: Column;
  /** How often it was done. */
  readonly times: Column;
  /** Seconds since 1970 at which it can be had again. */
  readonly again: Column;
  /** Ticks that are left of its time: what is kept of it; and the tick at which it is over. */
  readonly left: Column;
  readonly until: Column;
  /** One more than the position of its current step; 0 for none. */
  readonly at: Column;
  readonly offered: Column;
  /** One more than its row in the log; 0 for none. */
  readonly row: Column;
  readonly steps: readonly Column[];
  /** By step: what was counted for each goal, and one more than its row among the lines told. */
  readonly goals: readonly (readonly { readonly have: Column; readonly row: Column }[])[];
}

export interface Quests extends CompiledQuests {
  readonly cells: readonly QuestCells[];
  readonly log: Table;
  readonly lines: Table;
  readonly lookTimer: number;
}

export function questTables({ entries, players }: CompiledQuests): readonly TableSpec[] {
  const present: PerEntry<boolean> = { column: 'type', of: players };
  const see = { column: 'quest', of: entries.map((entry) => entry.see) };
  return [
    {
      // What is kept. Seats are told of a quest by its row in the log, and of those alone that they were offered.
      name: 'quests',
      title: 'Quests',
      extends: 'actors',
      columns: entries.flatMap(({ id, label, steps, formerly = [] }: QuestEntry) => {
        const column = (name: (quest: string) => string, saved = true, kind: 'int' | 'number' | 'tick' = 'int') => ({
          name: name(id),
          kind,
          see: 'server' as const,
          ...(saved && { saved: true }),
          present,
          formerly: formerly.map(name),
        });
        return [
          { ...column(columnsOf.standing), label, words: STANDING_WORDS },
          { ...column(columnsOf.times), label: `${label}, times done`, range: [0, 1_000_000] as const },
          { ...column(columnsOf.again, true, 'number'), label: `${label}, there again at (seconds since 1970)`, range: [0, 1e12] as const },
          { ...column(columnsOf.left), label: `${label}, ticks left`, range: [0, 1e8] as const },
          column(columnsOf.until, false, 'tick'),
          column(columnsOf.at, false),
          column(columnsOf.offered, false),
          column(columnsOf.row, false),
          ...steps.flatMap((step) => [
            {
              ...column((quest) => columnsOf.step(quest, step.id)),
              label: `${label}: ${step.label}`,
              words: ['ahead', 'current', 'passed'],
            },
            ...step.goals.flatMap((goal) => [
              {
                ...column((quest) => columnsOf.goal(quest, goal.id)),
                label: `${label}: ${goal.id}, counted`,
                range: [0, goal.count] as const,
              },
              column((quest) => columnsOf.goalRow(quest, goal.id), false),
            ]),
          ]),
        ];
      }),
    },
    {
      name: 'questLog',
      owner: 'actor',
      columns: [
        { name: 'actor', kind: 'actor', see },
        { name: 'quest', kind: 'entry', chapter: 'quests', see: 'server' },
        // Its id, to those alone who are told of it: seats know of no list of quests.
        { name: 'id', kind: 'text', see },
        { name: 'label', kind: 'text', see },
        { name: 'text', kind: 'text', see },
        // As much as it gives this player: for them alone.
        { name: 'rewards', kind: 'text', see: 'owner' },
        // A standing, or one that is offered.
        { name: 'standing', kind: 'int', see },
        { name: 'step', kind: 'text', see },
        { name: 'times', kind: 'int', see },
        // The tick at which its time is over, 0 for never; and the second at which it can be had again.
        { name: 'until', kind: 'tick', see },
        { name: 'again', kind: 'number', see, decimals: 0 },
        // Whether its player may give it up, or take it up without being offered it anew.
        { name: 'may', kind: 'flag', see },
      ],
    },
    {
      // The lines of the current step.
      name: 'questLines',
      owner: 'actor',
      columns: [
        { name: 'actor', kind: 'actor', see },
        { name: 'quest', kind: 'entry', chapter: 'quests', see: 'server' },
        // Its id, to those alone who are told of it: seats know of no list of quests.
        { name: 'id', kind: 'text', see },
        { name: 'order', kind: 'int', see },
        { name: 'line', kind: 'text', see },
        { name: 'have', kind: 'int', see },
        { name: 'need', kind: 'int', see },
        { name: 'optional', kind: 'flag', see },
      ],
    },
  ];
}

export function attachQuests(world: World, compiled: CompiledQuests): Quests {
  const table = world.table('quests');
  return {
    ...compiled,
    cells: compiled.list.map(({ id, steps }) => ({
      standing: table.column(columnsOf.standing(id)),
      times: table.column(columnsOf.times(id)),
      again: table.column(columnsOf.again(id)),
      left: table.column(columnsOf.left(id)),
      until: table.column(columnsOf.until(id)),
      at: table.column(columnsOf.at(id)),
      offered: table.column(columnsOf.offered(id)),
      row: table.column(columnsOf.row(id)),
      steps: steps.map((step) => table.column(columnsOf.step(id, step.id))),
      goals: steps.map((step) =>
        step.goals.map((goal) => ({ have: table.column(columnsOf.goal(id, goal.id)), row: table.column(columnsOf.goalRow(id, goal.id)) })),
      ),
    })),
    log: world.table('questLog'),
    lines: world.table('questLines'),
    lookTimer: world.rules.registry.timer('quests.look'),
  };
}
