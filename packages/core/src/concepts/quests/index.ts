import { positionOf } from '../../ruleset/rules.js';
import { defineConcept } from '../../world/concept.js';
import { questLinesTable, questLogTable, questsTable } from './tables.js';
import { compileQuests } from './compile.js';
import { invariants } from './invariants.js';
import { events } from './events.js';
import { inputs } from './inputs.js';
import { findings } from './findings.js';
import { followLog } from './log.js';
import { look, lookBack, makeSound } from './progress.js';
import { hear } from './hearing.js';
import { isPlayer, leaveBehind } from './record.js';
import { schema } from './schema.js';
import { joinRecords, mendWaits, offerAtStart, offerFromStart } from './taking.js';
import { quests } from './state.js';
import { showOne } from './system.js';
import { actions } from './actions.js';
import { vocabulary } from './vocabulary.js';

export { stretch } from './events.js';
export { OFFERED, STANDINGS, type Standing } from './tables.js';
export { patternOfOffer, type Goal, type Quest } from './compile.js';
export {
  BEGINS,
  COUNTS,
  type GoalEntry,
  HAVE,
  MOST_GOALS,
  MOST_STEPS,
  NEED,
  OFFERED_BY,
  type QuestEntry,
  RECORDS,
  REPEATS,
} from './schema.js';
export { quests } from './state.js';

/** Quests: what somebody asks of players, in steps, and what they have of it. */
export const questsConcept = defineConcept(quests, {
  alsoCalled: { parts: { rewards: ['then'], reward: ['then'] } },
  // Which quests there are is told to nobody: a seat learns of one as it is offered it.
  sections: { quests: { kind: 'chapter', title: 'Quests', entry: schema, forPlayers: true, ownConditions: true, secret: () => true } },
  vocabulary,
  compileInParts: compileQuests,
  tables: ({ entries, players }) => {
    const see = { column: 'quest', of: entries.map((entry) => entry.see) };
    return [
      questsTable.under(entries, { present: { column: 'type', of: players } }),
      questLogTable.under({ see }),
      questLinesTable.under({ see }),
    ];
  },
  attach: (world, compiled) => ({
    ...compiled,
    cells: questsTable.columnsIn(world, compiled.entries),
    log: questLogTable.in(world),
    lines: questLinesTable.in(world),
    lookTimer: world.rules.registry.timer('quests.look'),
  }),
  events,
  invariants,
  actions,
  inputs,
  findings,
  lifecycle: {
    playerLoaded: (world, row) => {
      makeSound(world, row);
      mendWaits(world, row);
      showOne(world, row);
    },
    rulesAdopted: (world, before) => {
      world.actors.each((row) => makeSound(world, row));
      followLog(world, before.rules);
    },
  },
  listeners: {
    seatTaken: (world, { subject }) => {
      joinRecords(world, subject);
      offerAtStart(world, subject);
    },
    teamChanged: (world, { subject, data: { before } }) => {
      const row = world.actors.rowOf(subject);
      if (!isPlayer(world, row)) return;
      if (before !== '') leaveBehind(world, row, positionOf(world.rules, 'teams', String(before)));
      joinRecords(world, subject);
    },
    clockSetBack: (world, { data }) => {
      world.actors.each((row) => mendWaits(world, row, Number(data['seconds'])));
    },
  },
  onEvent: hear,
  timers: { look: lookBack },
  systems: {
    thresholds: (world) => {
      look(world);
      offerFromStart(world);
    },
  },
  workbench: async () => (await import('../workbenches.js')).quests,
});
