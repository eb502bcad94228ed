import type { Invariant } from '../../world/invariant.js';
import { onceEach } from '../../world/once.js';
import { events } from './events.js';

export const invariants: Readonly<Record<string, Invariant>> = {
  achievementsOnce: onceEach({
    event: events.achievementUnlocked,
    field: 'achievement',
    reset: events.achievementsReset,
    repeats: () => false,
    label: 'an achievement is unlocked once',
    says: ({ who, data }) => `${who} has unlocked ${data['label']} a second time.`,
  }),
};
