import { text } from '../../world/event-fields.js';
import { defineEvents } from '../../world/events.js';

/** At most so many lists of actions wait in a world. */
export const MOST_WAITING = 10_000;

export const events = defineEvents({
  listDropped: {
    label: 'a list of actions is dropped',
    when: 'A list was to wait, and as many wait already as can; what was still to come in it is left undone.',
    arises: 'core',
    fields: { rule: text() },
    see: 'server',
    refusal: true,
    sentence: (e, speak) => {
      const [chapter, id] = String(e.data['rule']).split('/');
      return `${MOST_WAITING} lists of actions wait already: ${id === undefined ? 'one' : `one of ${speak.label(chapter, id)}`} is dropped`;
    },
  },
});
