import type { ActionSpec } from '../../world/concept.js';
import { type QuestEntry } from './schema.js';
import { askForQuests, startByAction } from './taking.js';
import { complete, offer } from './course.js';
import { countByAction, forgetQuests } from './progress.js';
import { didYouMean } from '../../ruleset/suggest.js';
import { finite, id, reference } from '../../ruleset/fields.js';
import { onQuest } from './system.js';
import { fail } from './steps.js';
import { described } from '../../ruleset/described.js';

export const actions: Readonly<Record<string, ActionSpec>> = {
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
      amount: described(finite().int('A count is a whole number.').min(1, 'A count is at least 1.').max(1000, 'At most 1000.'), {
        begins: 1,
      }),
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
};
