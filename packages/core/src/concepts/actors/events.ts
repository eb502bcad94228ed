import { MOST_STEPS } from '../../world/budget.js';
import { amount, text } from '../../world/event-fields.js';
import { defineEvents } from '../../world/events.js';

export const events = defineEvents({
  actorSpawned: {
    label: 'an actor appears',
    when: 'An actor is in the arena, with what it begins with.',
    arises: 'core',
    see: 'everyone',
    sentence: (e) => `${e.who} appears`,
  },
  actorLeft: {
    label: 'an actor leaves',
    when: 'An actor has gone from the arena, with all that it owned.',
    arises: 'core',
    fields: { name: text() },
    see: 'everyone',
    sentence: (e) => `${e.data['name']} leaves`,
  },
  loopCut: {
    label: 'a loop of reactions is cut',
    when: 'Once a tick, when what followed from each other would not end; the rest is left undone.',
    arises: 'core',
    fields: { event: text() },
    see: 'server',
    sentence: (e) => `a loop of reactions was cut at ${e.data['event']}`,
  },
  tickCut: {
    label: 'a tick is cut',
    when: 'Once a tick, when it has taken as many steps as it may; the rest is left undone.',
    arises: 'core',
    fields: { rule: text(), share: amount() },
    see: 'server',
    sentence: (e, speak) => {
      const [chapter, id] = String(e.data['rule']).split('/');
      const most =
        id === undefined ? '' : `, most of them (${Math.floor(Number(e.data['share']) * 100)} %) for ${speak.label(chapter, id)}`;
      return `the tick was cut after ${MOST_STEPS} steps${most}`;
    },
  },
});
