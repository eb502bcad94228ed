import { entry, word } from '../../world/event-fields.js';
import { defineEvents } from '../../world/events.js';

/** Why an actor went from one state into another. */
const TRANSITIONS = ['began', 'ended', 'status', 'event', 'moved', 'stopped'] as const;
export type Transition = (typeof TRANSITIONS)[number];

const WORDS: Readonly<Record<string, string>> = {
  began: '',
  ended: '',
  status: ', by a status',
  event: ', by an event',
  moved: '',
  stopped: '',
};

export const events = defineEvents({
  stateChanged: {
    label: 'a state changes',
    when: 'An actor is in its new action state.',
    arises: 'core',
    fields: { from: entry('states'), to: entry('states'), how: word(TRANSITIONS) },
    patterns: ['from', 'to', 'how'],
    see: { as: 'to' },
    sentence: (e, speak) => {
      const name = (id: unknown) => speak.label('states', id).toLowerCase();
      return `${e.who}: ${name(e.data['from'])} → ${name(e.data['to'])}${WORDS[String(e.data['how'])]}`;
    },
  },
});
