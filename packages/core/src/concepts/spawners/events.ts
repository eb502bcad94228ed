import { amount, entry } from '../../world/event-fields.js';
import { defineEvents } from '../../world/events.js';

export const events = defineEvents({
  waveBegan: {
    label: 'a spawner makes something',
    when: 'All that a spawner makes at a time is in the arena.',
    fields: { spawner: entry('spawners'), wave: amount(), made: amount() },
    patterns: ['spawner', 'wave', 'made'],
    arises: { from: 'spawners', field: 'spawner' },
    see: 'everyone',
    announced: true,
    sentence: (e, speak) => {
      const made = Number(e.data['made']);
      return `${speak.label('spawners', e.data['spawner'])} makes ${made === 0 ? 'nothing' : made}, time ${e.data['wave']}`;
    },
  },
});
