import { text } from '../../world/event-fields.js';
import { defineEvents } from '../../world/events.js';

export const events = defineEvents({
  seatTaken: {
    label: 'a seat is taken',
    when: 'A player’s actor is in the arena, with all that was kept of the player.',
    arises: 'core',
    fields: { seat: text() },
    patterns: [],
    see: 'everyone',
    sentence: (e) => `${e.who} takes the seat`,
  },
  seatLeft: {
    label: 'a seat is left',
    when: 'A player’s actor has gone from the arena, with all that it owned.',
    arises: 'core',
    fields: { seat: text() },
    patterns: [],
    see: 'everyone',
    sentence: (e) => `${e.data['seat']} leaves the seat`,
  },
  asked: {
    label: 'a player asks for something',
    when: 'Before what a player asked for is looked at.',
    arises: 'core',
    fields: { do: text(), words: text() },
    see: 'server',
    sentence: (e) => `${e.who} asks: ${[e.data['do'], e.data['words']].filter((part) => part !== '').join(' ')}`,
  },
  poked: {
    label: 'a poke',
    when: 'Before an action from outside is run.',
    arises: 'core',
    fields: { what: text() },
    see: 'server',
    sentence: (e) => `poke: ${e.data['what']}${e.who ? ` on ${e.who}` : ''}${e.by ? `, from ${e.by}` : ''}`,
  },
});
