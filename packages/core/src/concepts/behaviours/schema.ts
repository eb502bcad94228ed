import { z } from 'zod';
import { duration, finite } from '../../ruleset/fields.js';
import { WHO } from '../actors/relations.js';

export const BEHAVIOURS = ['stand', 'wander', 'follow', 'chase', 'flee'] as const;
const within = () => finite().min(1, 'A distance is 1 to 5000.').max(5000, 'A distance is 1 to 5000.');
const who = () => z.enum(WHO, `One of ${WHO.join(', ')} is expected.`).optional();

/** Fields that every behaviour has that minds somebody: whom, whether walls hide them, and what it uses on them. */
const minding = () => ({ who: who(), sight: z.boolean().optional() });

/**
 * What an actor does when nobody drives it.
 * - `stand`: stays where it is, and uses what it has on whom that reaches
 * - `wander`: goes from one point near its home to another
 * - `follow`: goes along points, and round again or back
 * - `chase`: goes after the nearest that counts and uses what it has on it, until that gets too far from home
 * - `flee`: gets away from the nearest that counts
 */
export const behaviour = () =>
  z.discriminatedUnion(
    'do',
    [
      z.strictObject({ do: z.literal('stand'), ...minding() }),
      z.strictObject({ do: z.literal('wander'), within: within().default(120), pause: duration().optional() }),
      z.strictObject({
        do: z.literal('follow'),
        points: z
          .array(z.strictObject({ x: finite(), y: finite() }))
          .min(1, 'There is no point to go to.')
          .max(100, 'At most 100 points.'),
        turn: z.enum(['round', 'back'], 'One of round, back is expected.').default('round'),
        pause: duration().optional(),
      }),
      z.strictObject({ do: z.literal('chase'), within: within(), leash: within().optional(), ...minding() }),
      z.strictObject({ do: z.literal('flee'), within: within(), ...minding() }),
    ],
    `What does it do? { "do": one of ${BEHAVIOURS.join(', ')} }.`,
  );
export type BehaviourEntry = z.infer<ReturnType<typeof behaviour>>;
