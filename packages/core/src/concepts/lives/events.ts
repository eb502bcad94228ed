import { amount, entry } from '../../world/event-fields.js';
import { defineEvents } from '../../world/events.js';

export const events = defineEvents({
  actorDefeated: {
    label: 'an actor falls',
    when: 'An actor is down, nothing is on it any more; what follows from its fall is still to come.',
    arises: 'core',
    fields: { type: entry('actors'), helpers: amount() },
    patterns: ['type', 'helpers'],
    see: 'everyone',
    announced: true,
    sentence: (e) => `${e.who} falls${e.source === 0 || e.source === e.subject ? '' : `, by ${e.by}`}${helped(Number(e.data['helpers']))}`,
  },
  arenaFull: {
    label: 'the arena is full',
    when: 'Somebody was to be brought in, or something laid down or sent on its way, and was not: the arena holds no more of them.',
    fields: { type: entry('actors'), pickup: entry('pickups'), ability: entry('abilities') },
    see: 'server',
    refusal: true,
    sentence: ({ data }, speak) => {
      const { type, pickup, ability } = data;
      const what =
        ability !== undefined
          ? speak.label('abilities', ability)
          : pickup !== undefined
            ? speak.label('pickups', pickup)
            : speak.label('actors', type);
      return `no room for another ${what.toLowerCase()}`;
    },
  },
  actorReturned: {
    label: 'an actor comes back',
    when: 'An actor is up again, where it belongs, with the pools that it begins with.',
    arises: 'core',
    fields: { type: entry('actors') },
    patterns: ['type'],
    see: 'everyone',
    announced: true,
    sentence: (e) => `${e.who} comes back`,
  },
});

const helped = (count: number) => (count === 0 ? '' : count === 1 ? ', with the help of one' : `, with the help of ${count}`);
