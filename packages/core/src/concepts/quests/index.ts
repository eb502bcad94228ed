import { finite, id, reference } from '../../ruleset/fields.js';
import { positionOf } from '../../ruleset/rules.js';
import { didYouMean } from '../../ruleset/suggest.js';
import { defineConcept } from '../../world/concept.js';
import type { World } from '../../world/world.js';
import { ACTIVE, questLinesTable, questLogTable, questsTable, READY } from './tables.js';
import { compileQuests } from './compile.js';
import { events } from './events.js';
import { findings } from './findings.js';
import { showAll } from './log.js';
import { countByAction, forgetQuests, look, lookBack, makeSound } from './progress.js';
import { complete } from './course.js';
import { hear } from './hearing.js';
import { isPlayer, leaveBehind } from './record.js';
import { type QuestEntry, schema } from './schema.js';
import { answer, askForQuests, joinRecords, mendWaits, offerAtStart, offerFromStart, startByAction } from './taking.js';
import { offer } from './course.js';
import { fail } from './steps.js';
import { quests } from './state.js';
import { onQuest, showOne } from './system.js';

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
  type Offer,
  OFFERED_BY,
  type QuestEntry,
  RECORDS,
  REPEATS,
  type StepEntry,
} from './schema.js';
export { quests } from './state.js';

const ask = { quest: id() };

/** Quests: what somebody asks of players, in steps, and what they have of it. */
export const questsConcept = defineConcept(quests, {
  alsoCalled: { parts: { rewards: ['then'], reward: ['then'] } },
  // Which quests there are is told to nobody: a seat learns of one as it is offered it.
  sections: { quests: { kind: 'chapter', title: 'Quests', entry: schema, forPlayers: true, ownConditions: true, secret: () => true } },
  vocabulary: (ids) => {
    const about = (name: string, holds: (world: World, row: number, q: number) => boolean) => ({
      name,
      chapter: 'quests',
      ids: ids('quests'),
      amounts: 0,
      yields: 'condition' as const,
      noun: 'quest',
      read: (q: number) => (world: World, actor: number) => {
        const row = world.actors.rowOf(actor);
        return row >= 0 && holds(world, row, q) ? 1 : 0;
      },
    });
    return {
      functions: [
        about('done', (world, row, q) => quests.in(world).cells[q].times.data[row] > 0),
        about('onQuest', (world, row, q) => [ACTIVE, READY].includes(quests.in(world).cells[q].standing.data[row])),
      ],
    };
  },
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
  actions: {
    offerQuests: {
      label: 'take quests back and offer the next',
      sentence: 'take back what {to} has done, or offer the first quest that {to} may have',
      args: {},
      compile:
        () =>
        (world, actor, { target }) =>
          askForQuests(world, actor, target),
    },
    offerQuest: onQuest({ label: 'offer a quest', sentence: 'offer {quest} to {to}', leads: ['questOffered', 'questStarted'] }, offer),
    startQuest: onQuest({ label: 'begin a quest', sentence: 'have {to} begin {quest}', leads: ['questStarted'] }, startByAction),
    finishQuest: onQuest({ label: 'end a quest as done', sentence: 'have {to} be done with {quest}', leads: ['questDone'] }, complete),
    failQuest: onQuest(
      { label: 'end a quest as failed', sentence: 'have {to} fail in {quest}', leads: ['questFailed'] },
      (world, actor, q, source) => fail(world, actor, q, 'action', source),
    ),
    countGoal: {
      label: 'count for a quest',
      sentence: 'count {amount} for {quest} for {to}, towards {goal}',
      causes: ({ quest }) => [{ event: 'goalCounted', fields: { quest } }],
      args: {
        quest: reference('quests'),
        amount: finite().int('A count is a whole number.').min(1, 'A count is at least 1.').max(1000, 'At most 1000.'),
        /** One of its goals; all of the current step where nothing is said. */
        goal: id().optional(),
      },
      compile: (args, context, path) => {
        const q = context.index('quests', String(args['quest']));
        const quest = context.entries<QuestEntry>('quests')[q];
        const wanted = args['goal'];
        const all = (quest?.steps ?? []).flatMap(({ goals }) => goals.map((goal) => goal.id));
        if (quest && wanted !== undefined && !all.includes(String(wanted)))
          context.problem([...path, 'goal'], `${quest.label} has no goal ${String(wanted)}.${didYouMean(String(wanted), all)}`);
        return (world, actor) => countByAction(world, actor, q, wanted === undefined ? undefined : String(wanted), Number(args['amount']));
      },
    },
    forgetQuests: {
      label: 'take quests back',
      sentence: 'take all quests of {to} back',
      causes: () => [{ event: 'questsReset' }],
      args: {},
      compile: () => forgetQuests,
    },
  },
  inputs: {
    acceptQuest: { args: ask, traced: true, run: (world, actor, { quest }) => answer(world, actor, 'accept', String(quest)) },
    declineQuest: { args: ask, traced: true, run: (world, actor, { quest }) => answer(world, actor, 'decline', String(quest)) },
    abandonQuest: { args: ask, traced: true, run: (world, actor, { quest }) => answer(world, actor, 'abandon', String(quest)) },
  },
  findings,
  lifecycle: {
    playerLoaded: (world, row) => {
      makeSound(world, row);
      mendWaits(world, row);
      showOne(world, row);
    },
    rulesAdopted: (world) => {
      world.actors.each((row) => makeSound(world, row));
      showAll(world);
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
  workbench: () => import('./workbench.js'),
});
