import { amount, entry, flag, forTrace, text } from '../../world/event-fields.js';
import { defineEvents, type EventData } from '../../world/events.js';

const fields = { pickup: entry('pickups'), own: flag() };
const patterns = ['pickup'];

/** What lies there for one player alone is nobody else's business, neither when it is taken nor when it has gone. */
const seenAsLying = (data: EventData) => (data['own'] === true ? 'owner' : 'everyone');

export const events = defineEvents({
  pickupAppeared: {
    label: 'a pickup appears',
    when: 'A pickup was put down, or has come back.',
    fields: { ...fields, x: amount(), y: amount() },
    patterns,
    arises: { from: 'pickups', field: 'pickup' },
    see: seenAsLying,
    sentence: (e, speak) => `${speak.label('pickups', e.data['pickup'])} appears`,
  },
  pickupTaken: {
    label: 'a pickup is taken',
    when: 'A pickup is gone, for everybody or for the one who took it; its actions are still to come.',
    fields,
    patterns,
    arises: { from: 'pickups', field: 'pickup' },
    see: seenAsLying,
    announced: true,
    sentence: (e, speak) => `${e.who} takes ${speak.label('pickups', e.data['pickup']).toLowerCase()}`,
  },
  pickupFaded: {
    label: 'a pickup is gone unclaimed',
    when: 'A pickup that lay too long is gone.',
    fields,
    patterns,
    arises: { from: 'pickups', field: 'pickup' },
    see: seenAsLying,
    announced: true,
    sentence: (e, speak) => `${speak.label('pickups', e.data['pickup'])} is gone, unclaimed`,
  },
  pickupRefused: {
    label: 'a pickup is not for somebody',
    when: 'Somebody began to touch a pickup that its rule keeps from them; once for each time they touch it.',
    // What the rule is, is the server's; its author's words are for who is refused.
    fields: { ...fields, rule: forTrace(text()), says: text() },
    patterns,
    arises: { from: 'pickups', field: 'pickup' },
    see: 'owner',
    // Those who may not take it hear of it where its author has words for them; the trace tells it always.
    announced: (data) => data['says'] !== undefined,
    refusal: true,
    sentence: (e, speak) => {
      const { pickup, rule, says } = e.data;
      const label = speak.label('pickups', pickup);
      return says === undefined ? `${label} is not for ${e.who}: “${rule}” does not hold.` : `${label}: ${says}`;
    },
  },
});
