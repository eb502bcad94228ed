import { amount, entry, flag } from '../../world/event-fields.js';
import { defineEvents } from '../../world/events.js';

export const events = defineEvents({
  offerBought: {
    label: 'something is bought',
    when: 'What it costs is paid, what it gives is there, and it is out of stock by one: all of it, or none; what else follows is still to come.',
    fields: { offer: entry('offers'), shop: entry('shops'), tier: amount('offer'), tiered: flag('offer') },
    patterns: ['offer', 'shop', 'tier'],
    arises: { from: 'offers', field: 'offer' },
    see: 'owner',
    announced: true,
    sentence: (e, speak) =>
      `${e.who} buys ${speak.label('offers', e.data['offer']).toLowerCase()}${e.data['tiered'] === true ? `, tier ${e.data['tier']}` : ''}`,
  },
});
