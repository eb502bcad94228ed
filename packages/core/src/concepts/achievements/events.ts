import { amount, entry, text } from '../../world/event-fields.js';
import { defineEvents } from '../../world/events.js';

export const events = defineEvents({
  achievementUnlocked: {
    label: 'an achievement is unlocked',
    when: 'An achievement counts for a player, once for ever; what follows from it is still to come.',
    fields: { achievement: entry('achievements'), label: text('achievement'), text: text('achievement'), points: amount('achievement') },
    patterns: ['achievement', 'points'],
    arises: { from: 'achievements', field: 'achievement' },
    see: { as: 'achievement' },
    announced: true,
    sentence: (e) => `${e.who} unlocks ${e.data['label']}`,
  },
  achievementsReset: {
    label: 'achievements are taken back',
    when: 'A player has no achievement any more, and nothing that was counted for one.',
    see: 'owner',
    announced: true,
    sentence: (e) => `${e.who}’s achievements are taken back`,
  },
});
