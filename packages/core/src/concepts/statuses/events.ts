import { entry } from '../../world/event-fields.js';
import { defineEvents } from '../../world/events.js';

export const events = defineEvents({
  statusGained: {
    label: 'a status begins',
    when: 'The first grant of a status is on an actor.',
    fields: { status: entry('statuses') },
    patterns: ['status'],
    see: { as: 'status' },
    sentence: (e, speak) => `${e.who} is now ${speak.label('statuses', e.data['status']).toLowerCase()}`,
  },
  statusLost: {
    label: 'a status ends',
    when: 'The last grant of a status is off an actor.',
    fields: { status: entry('statuses') },
    patterns: ['status'],
    see: { as: 'status' },
    sentence: (e, speak) => `${e.who} is no longer ${speak.label('statuses', e.data['status']).toLowerCase()}`,
  },
});
