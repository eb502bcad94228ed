import { defineTable } from '../../world/define-table.js';
import { columnNames, defineEntryTable } from '../../world/entry-table.js';
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
const part =
  (...names: readonly string[]) =>
  (quest: string) =>
    [quest, ...names].join('.');

/** What is kept of a quest. Seats are told of it by its row in the log, and of those alone that they were offered. */
export const questsTable = defineEntryTable({
  name: 'quests',
  title: 'Quests',
  extends: 'actors',
  columns: (quest: QuestEntry) => {
    const { label } = quest;
    const kept = (...names: readonly string[]) => ({ ...own(...names), saved: true }) as const;
    const own = (...names: readonly string[]) => ({ ...columnNames(quest, part(...names)), kind: 'int', see: 'server' }) as const;
    return {
      standing: { ...kept(), label, words: STANDING_WORDS },
      /** How often it was done. */
      times: { ...kept('times'), label: `${label}, times done`, range: [0, 1_000_000] },
      /** Seconds since 1970 at which it can be had again. */
      again: { ...kept('again'), kind: 'number', label: `${label}, there again at (seconds since 1970)`, range: [0, 1e12] },
      /** Ticks that are left of its time: what is kept of it; and the tick at which it is over. */
      left: { ...kept('left'), label: `${label}, ticks left`, range: [0, 1e8] },
      until: { ...own('until'), kind: 'tick' },
      /** One more than the position of its current step; 0 for none. */
      at: own('at'),
      offered: own('offered'),
      /** One more than its row in the log; 0 for none. */
      row: own('row'),
      steps: quest.steps.map((step) => ({
        standing: { ...kept('step', step.id), label: `${label}: ${step.label}`, words: ['ahead', 'current', 'passed'] } as const,
        /** What was counted for each goal, and one more than its row among the lines told. */
        goals: step.goals.map((goal) => ({
          have: { ...kept('goal', goal.id), label: `${label}: ${goal.id}, counted`, range: [0, goal.count] } as const,
          row: own('goal', goal.id, 'row'),
        })),
      })),
    };
  },
});

/** The columns of a quest in a world. */
export type QuestCells = ReturnType<typeof questsTable.columnsIn>[number];

export const questLogTable = defineTable({
  name: 'questLog',
  owner: 'actor',
  columns: {
    actor: { kind: 'actor', see: 'rules' },
    quest: { kind: 'entry', chapter: 'quests', see: 'server' },
    /** Its id, to those alone who are told of it: seats know of no list of quests. */
    id: { kind: 'text', see: 'rules' },
    label: { kind: 'text', see: 'rules' },
    text: { kind: 'text', see: 'rules' },
    /** As much as it gives this player: for them alone. */
    rewards: { kind: 'text', see: 'owner' },
    /** A standing, or one that is offered. */
    standing: { kind: 'int', words: [...STANDINGS, 'offered'], see: 'rules' },
    step: { kind: 'text', see: 'rules' },
    times: { kind: 'int', see: 'rules' },
    /** The tick at which its time is over, 0 for never; and the second at which it can be had again. */
    until: { kind: 'tick', see: 'rules' },
    again: { kind: 'number', see: 'rules', decimals: 0 },
    /** Whether its player may give it up, or take it up without being offered it anew. */
    may: { kind: 'flag', see: 'rules' },
  },
});

/** The lines of the current step. */
export const questLinesTable = defineTable({
  name: 'questLines',
  owner: 'actor',
  columns: {
    actor: { kind: 'actor', see: 'rules' },
    quest: { kind: 'entry', chapter: 'quests', see: 'server' },
    /** Its id, to those alone who are told of it: seats know of no list of quests. */
    id: { kind: 'text', see: 'rules' },
    order: { kind: 'int', see: 'rules' },
    line: { kind: 'text', see: 'rules' },
    have: { kind: 'int', see: 'rules' },
    need: { kind: 'int', see: 'rules' },
    optional: { kind: 'flag', see: 'rules' },
  },
});
