import { amount, entry } from '../../world/event-fields.js';
import { defineEvents } from '../../world/events.js';

export const events = defineEvents({
  areaLanded: {
    label: 'an area lands',
    when: 'An area has come down and those in it are known; what it does to them is still to come.',
    arises: { from: 'abilities', field: 'ability' },
    fields: { ability: entry('abilities'), caught: amount('ability') },
    patterns: ['ability', 'caught'],
    see: { as: 'ability' },
    sentence: (e, speak) => `${e.who}’s ${speak.label('abilities', e.data['ability']).toLowerCase()} lands, ${e.data['caught']} in it`,
  },
});
