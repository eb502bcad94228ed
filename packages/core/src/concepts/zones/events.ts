import { defineEvents } from '../../world/events.js';
import { entry } from '../../world/event-fields.js';

export const fields = { zone: entry('zones') };

export const patterns = ['zone'];

export const events = defineEvents({
  zoneEntered: {
    label: 'a zone is entered',
    when: 'After movement, once somebody for whom it is a zone has their middle in it.',
    fields,
    patterns,
    arises: { from: 'zones', field: 'zone' },
    see: 'owner',
    announced: true,
    sentence: (e, speak) => `${e.who} enters ${speak.label('zones', e.data['zone']).toLowerCase()}`,
  },
  zoneLeft: {
    label: 'a zone is left',
    when: 'After movement, once somebody who was in it has left it, or it is no longer a zone for them.',
    fields,
    patterns,
    arises: { from: 'zones', field: 'zone' },
    see: 'owner',
    announced: true,
    sentence: (e, speak) => `${e.who} leaves ${speak.label('zones', e.data['zone']).toLowerCase()}`,
  },
});
