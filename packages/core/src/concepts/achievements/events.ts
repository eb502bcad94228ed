import type { EventSpec } from '../../world/events.js';

export const events: Readonly<Record<string, EventSpec>> = {
  achievementUnlocked: {
    label: 'an achievement is unlocked',
    when: 'An achievement counts for a player, once for ever; what follows from it is still to come.',
    carries: { entries: { achievement: 'achievements' }, amounts: ['points'] },
    arises: { from: 'achievements', field: 'achievement' },
    see: (data, seeEntry) => seeEntry('achievements', String(data['achievement'])),
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
};
