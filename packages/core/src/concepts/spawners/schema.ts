import { z } from 'zod';
import { amount, duration, entryFields, finite, reference, steadyAmount } from '../../ruleset/fields.js';
import { described } from '../../ruleset/described.js';
import { pattern } from '../../ruleset/registry.js';
import { defineChapter } from '../../ruleset/chapter.js';

/**
 * - `every`: again and again after a time
 * - `wave`: when none of the last is left, after a pause
 * - `on`: when an event happens
 */
export const WHENS = ['every', 'wave', 'on'] as const;

/** What a placed spawner may say otherwise than its entry. */
export const spawnerFields = () => ({
  /** One of these by weight; one that names nothing is nothing. */
  what: z
    .array(
      z
        .strictObject({
          weight: described(steadyAmount(), { amount: 'A weight of {entry} is {value}', zero: true }),
          actor: reference('actors', ['foe', 'character', 'prop']).optional(),
          team: described(reference('teams'), { absent: 'no team' }).optional(),
          pickup: reference('pickups').optional(),
        })
        .refine((one) => one.actor === undefined || one.pickup === undefined, 'An actor or a pickup, not both.'),
    )
    .min(1, 'There is nothing to make.')
    .max(20, 'At most 20 to choose from.'),
  when: described(
    z.discriminatedUnion(
      'is',
      [
        z.strictObject({ is: z.literal('every'), time: described(duration(), { atOnce: '{entry} makes something in each tick' }) }),
        z.strictObject({ is: z.literal('wave'), pause: duration().default('0ms') }),
        z.strictObject({ is: z.literal('on'), event: pattern() }),
      ],
      `When? { "is": one of ${WHENS.join(', ')} }.`,
    ),
    {
      words: { every: 'every', wave: 'when none of the last is left', on: 'when' },
      hints: { every: 'again and again after a time', wave: 'in waves', on: 'something happens' },
    },
  ),
  /** How many at a time. */
  count: amount(),
  /** At most this many that it made are there at once. */
  most: finite().int('The most is a whole number.').min(1, 'At least one.').max(500, 'At most 500.'),
  /** It makes something only while a player is within this distance; whether or not where nothing is said. */
  near: finite().min(1, 'A distance is 1 to 5000.').max(5000, 'A distance is 1 to 5000.'),
  /** How far from its point they may appear. */
  spread: finite().min(0, 'A spread is 0 to 1000.').max(1000, 'A spread is 0 to 1000.'),
});

const fields = spawnerFields();
export const schema = z.strictObject({
  ...entryFields(),
  what: fields.what,
  when: fields.when,
  count: fields.count.default(1),
  most: fields.most.optional(),
  near: fields.near.optional(),
  spread: fields.spread.default(0),
});
export type SpawnerEntry = z.infer<typeof schema>;
export const spawnerChapter = defineChapter('spawners', schema);
