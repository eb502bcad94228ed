import type { Invariant } from '../../world/invariant.js';
import { onceEach } from '../../world/once.js';
import { events } from './events.js';
import { questChapter } from './schema.js';

export const invariants: Readonly<Record<string, Invariant>> = {
  questsOnce: onceEach({
    event: events.questDone,
    field: 'quest',
    reset: events.questsReset,
    repeats: (rules, id) => questChapter.find(rules, id)?.repeats !== 'once',
    label: 'a quest that is done once is done once',
    says: ({ who, data }) => `${who} has done “${data['label']}” a second time.`,
  }),
};
