import { z } from 'zod';
import { duration, entryFields, finite, steadyAmount, visibility } from '../../ruleset/fields.js';

export const ATTRIBUTE_KINDS = ['pool', 'stat', 'counter'] as const;
export const OPERATIONS = ['add', 'percent', 'times'] as const;
export type Operation = (typeof OPERATIONS)[number];

export const refill = z.strictObject({
  /** Per second; negative drains. */
  rate: steadyAmount(),
  /** How often it is applied; every tick when left out. */
  every: duration().optional(),
  /** How long refilling rests after a loss. A drain never rests. */
  pause: duration().optional(),
});

export const schema = z.strictObject({
  ...entryFields(),
  kind: z.enum(ATTRIBUTE_KINDS, 'One of pool, stat, counter is expected.'),
  /** The first value: an amount, or `full` for the maximum. */
  start: steadyAmount().optional(),
  min: steadyAmount().default(0),
  max: steadyAmount().optional(),
  whole: z.boolean().default(false),
  refill: refill.optional(),
  see: visibility().default('owner'),
  /** Decimals that seats are told. */
  decimals: finite().int('Decimals are a whole number.').min(0, 'Decimals: 0 to 4.').max(4, 'Decimals: 0 to 4.').optional(),
  unit: z.string().max(20).optional(),
  group: z.string().max(40).optional(),
  /** Kept per player between sessions; counters always are. */
  saved: z.boolean().optional(),
});
export type AttributeEntry = z.infer<typeof schema>;
