import { reference } from '../../ruleset/fields.js';
import type { InputSpec } from '../../world/concept.js';
import { answer } from './taking.js';
const ask = { quest: reference('quests') };

export const inputs: Readonly<Record<string, InputSpec>> = {
  acceptQuest: {
    label: 'accept a quest',
    sentence: 'accepts {quest}',
    args: ask,
    traced: true,
    run: (world, actor, { quest }) => answer(world, actor, 'accept', String(quest)),
  },
  declineQuest: {
    label: 'decline a quest',
    sentence: 'declines {quest}',
    args: ask,
    traced: true,
    run: (world, actor, { quest }) => answer(world, actor, 'decline', String(quest)),
  },
  abandonQuest: {
    label: 'abandon a quest',
    sentence: 'abandons {quest}',
    args: ask,
    traced: true,
    run: (world, actor, { quest }) => answer(world, actor, 'abandon', String(quest)),
  },
};
