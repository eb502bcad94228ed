import { z } from 'zod';
import { duration, finite, word, yesOrNo } from '../../ruleset/fields.js';
import { counted } from '../actors/relations.js';
import { described } from '../../ruleset/described.js';

export const BEHAVIOURS = ['stand', 'wander', 'follow', 'chase', 'flee'] as const;
const within = () => finite().min(1, 'A distance is 1 to 5000.').max(5000, 'A distance is 1 to 5000.');
const pause = () => described(duration(), { absent: 'no time' }).optional();

/** Fields that every behaviour has that minds somebody: whom, whether walls hide them, and what it uses on them. */
const minding = () => ({ who: counted().optional(), sight: yesOrNo('in sight only', 'also behind walls').optional() });

/**
 * What an actor does when nobody drives it.
 * - `stand`: stays where it is, and uses what it has on whom that reaches
 * - `wander`: goes from one point near its home to another
 * - `follow`: goes along points, and round again or back
 * - `chase`: goes after the nearest that counts and uses what it has on it, until that gets too far from home
 * - `flee`: gets away from the nearest that counts
 */
export const behaviour = () =>
  described(
    z.discriminatedUnion(
      'do',
      [
        z.strictObject({ do: z.literal('stand'), ...minding() }),
        z.strictObject({ do: z.literal('wander'), within: within().default(120), pause: pause() }),
        z.strictObject({
          do: z.literal('follow'),
          points: z
            .array(z.strictObject({ x: finite(), y: finite() }))
            .min(1, 'There is no point to go to.')
            .max(100, 'At most 100 points.'),
          turn: word(['round', 'back'], { round: 'and round again', back: 'and back again' }).default('round'),
          pause: pause(),
        }),
        z.strictObject({
          do: z.literal('chase'),
          within: within(),
          leash: described(within(), { absent: 'twice as far' }).optional(),
          ...minding(),
        }),
        z.strictObject({ do: z.literal('flee'), within: within(), ...minding() }),
      ],
      `What does it do? { "do": one of ${BEHAVIOURS.join(', ')} }.`,
    ),
    {
      words: { stand: 'stands', wander: 'wanders', follow: 'goes along points', chase: 'chases', flee: 'flees' },
      hints: {
        stand: 'and uses what it has on whom that reaches',
        wander: 'about its home',
        follow: 'round, or there and back',
        chase: 'and uses what it has',
        flee: 'from who comes near',
      },
      absent: 'does nothing by itself',
    },
  );
export type BehaviourEntry = z.infer<ReturnType<typeof behaviour>>;
