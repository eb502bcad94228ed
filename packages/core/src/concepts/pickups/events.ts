import type { EventData, EventSpec } from '../../world/events.js';

const carries = { entries: { pickup: 'pickups' } };

/** What lies there for one player alone is nobody else's business, neither when it is taken nor when it has gone. */
const seenAsLying = (data: EventData) => (data['own'] === true ? 'owner' : 'everyone');

export const events: Readonly<Record<string, EventSpec>> = {
  pickupAppeared: {
    label: 'a pickup appears',
    when: 'A pickup was put down, or has come back.',
    carries,
    arises: { from: 'pickups', field: 'pickup' },
    see: seenAsLying,
    sentence: (e, speak) => `${speak.label('pickups', String(e.data['pickup']))} appears`,
  },
  pickupTaken: {
    label: 'a pickup is taken',
    when: 'A pickup is gone, for everybody or for the one who took it; its actions are still to come.',
    carries,
    arises: { from: 'pickups', field: 'pickup' },
    see: seenAsLying,
    announced: true,
    sentence: (e, speak) => `${e.who} takes ${speak.label('pickups', String(e.data['pickup'])).toLowerCase()}`,
  },
  pickupFaded: {
    label: 'a pickup is gone unclaimed',
    when: 'A pickup that lay too long is gone.',
    carries,
    arises: { from: 'pickups', field: 'pickup' },
    see: seenAsLying,
    announced: true,
    sentence: (e, speak) => `${speak.label('pickups', String(e.data['pickup']))} is gone, unclaimed`,
  },
  pickupRefused: {
    label: 'a pickup is not for somebody',
    when: 'Somebody began to touch a pickup that its rule keeps from them; once for each time they touch it.',
    carries,
    arises: { from: 'pickups', field: 'pickup' },
    see: 'owner',
    // Those who may not take it hear of it where its author has words for them; the trace tells it always.
    announced: (data) => data['says'] !== undefined,
    refusal: true,
    sentence: (e, speak) => {
      const { pickup, rule, says } = e.data;
      const label = speak.label('pickups', String(pickup));
      return says === undefined ? `${label} is not for ${e.who}: “${rule}” does not hold.` : `${label}: ${says}`;
    },
  },
};
