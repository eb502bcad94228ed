import { z } from 'zod';
import { condition, duration, entryFields, finite, steadyAmount, visibility, yesOrNo } from '../../ruleset/fields.js';
import { actionList, pattern } from '../../ruleset/registry.js';
import { described } from '../../ruleset/described.js';

export const MOST_COUNT = 1_000_000;

export const schema = z.strictObject({
  ...entryFields(),
  /** What a player reads of it. */
  text: z.string().min(1, 'Words are expected.').max(160, 'At most 160 characters.').optional(),
  /** What is counted, for the part of the event that `who` says; */
  on: pattern().optional(),
  count: finite().int('A count is a whole number.').min(1, 'A count is at least 1.').max(MOST_COUNT).default(1),
  /** or what has to be so; one that actions unlock needs neither, */
  if: condition().optional(),
  /** without a break for this long. */
  holds: described(duration(), { absent: 'an instant' }).optional(),
  /** What was counted before there was this achievement: asked as a player comes, and as the rules are edited. */
  backwards: steadyAmount().optional(),
  /** Nobody is told of it until they have it. */
  secret: yesOrNo('Nobody reads of it before they have it', 'Everybody can read of it').default(false),
  points: described(finite().int('Points are whole numbers.').min(0, 'Points are 0 or more.').max(1000), { unit: 'points' }).default(10),
  /** Whether its progress is told on the display all the while. */
  hud: yesOrNo('is told on the display all the while', 'is told in the list alone').default(false),
  /** Who is told when somebody has it. */
  see: described(visibility(), { words: { owner: 'its player', team: 'the crew', everyone: 'everyone', server: 'nobody' } }).default(
    'owner',
  ),
  then: actionList().default([]),
});
export type AchievementEntry = z.infer<typeof schema>;
