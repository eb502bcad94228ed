import { z } from 'zod';
import { colour, duration, finite, steadyAmount, timeAmount, yesOrNo } from '../../ruleset/fields.js';
import { described } from '../../ruleset/described.js';
import { counted } from '../actors/relations.js';

const who = () => counted().optional();
export const DELIVERIES = ['projectile', 'area'] as const;

/** How what an ability does reaches whom it is for. Without one it does at once. */
export const deliverySchema = described(
  z.discriminatedUnion(
    'by',
    [
      z.strictObject({
        by: z.literal('projectile'),
        count: finite().int('How many is a whole number.').min(1, '1 to 50 projectiles.').max(50, '1 to 50 projectiles.').default(1),
        /** The whole angle over which several are spread, in degrees, 360 for equal parts of a circle; a cone's own where nothing is said. */
        spread: described(finite().min(0, 'A spread is 0 to 360 degrees.').max(360, 'A spread is 0 to 360 degrees.'), {
          unit: 'degrees',
        }).optional(),
        /** Units a second. */
        speed: steadyAmount(),
        radius: finite().min(0.5, 'A radius is 0.5 to 200.').max(200, 'A radius is 0.5 to 200.').default(4),
        lifetime: timeAmount(),
        /** How many it goes through before it ends in one. */
        pierce: finite().int('How many is a whole number.').min(0).max(100).default(0),
        /** It turns towards the actor that it was aimed at, or the nearest that counts. */
        homing: yesOrNo('turns towards them', 'flies straight').optional(),
        /** Whom it meets; it flies past everybody else. */
        who: who(),
        colour: colour().optional(),
      }),
      z.strictObject({
        by: z.literal('area'),
        radius: described(steadyAmount(), { amount: 'The area of {entry} has the radius {value}' }),
        /** From the use until it lands. */
        delay: described(timeAmount(), { absent: 'no time' }).optional(),
        /** How long it stays after it landed; 0 where it is over at once. */
        lasts: described(timeAmount(), { absent: 'a moment' }).optional(),
        /** While it stays it does again and again to whom it holds. */
        every: described(duration(), { atOnce: '{entry} hits in each tick', absent: 'never' }).optional(),
        who: who(),
        colour: colour().optional(),
      }),
    ],
    `How does it reach them? { "by": one of ${DELIVERIES.join(', ')} }, or nothing for at once.`,
  ),
  {
    words: { projectile: 'by projectiles', area: 'by an area' },
    hints: { projectile: 'that fly and meet somebody', area: 'that lands where it was aimed' },
    absent: 'at once',
  },
);
export type DeliveryEntry = z.infer<typeof deliverySchema>;
