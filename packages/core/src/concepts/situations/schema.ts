import { z } from 'zod';
import { belonging, duration, entryFields, finite } from '../../ruleset/fields.js';
import { registry } from '../../ruleset/registry.js';
import { described } from '../../ruleset/described.js';

export const MOST_PINS = 40;

export const schema = z.strictObject({
  ...entryFields(),
  /** The entry that it tries out: one of these. */
  attribute: belonging('attributes').optional(),
  effect: belonging('effects').optional(),
  ability: belonging('abilities').optional(),
  /** Seconds to be shown. */
  seconds: described(finite().min(1, 'A situation is 1 to 300 s long.').max(300, 'A situation is 1 to 300 s long.'), {
    unit: 'seconds',
    absent: '60',
  }).optional(),
  /** What is done from outside, and when. */
  pins: z
    .array(
      z.strictObject({
        at: duration(),
        action: z.lazy(() => registry().action),
        /** It comes from another actor rather than from nowhere: that one is its source. */
        from: described(z.enum(['other'], 'Only "other" can be said here.'), {
          words: { other: 'from another' },
          absent: 'from nobody',
        }).optional(),
      }),
    )
    .max(MOST_PINS, `A situation has at most ${MOST_PINS} pins.`)
    .default([]),
});

export type SituationEntry = z.infer<typeof schema>;
