import { z } from 'zod';
import { type AmountSource, amount, duration, entryFields, reference, visibility } from '../../ruleset/fields.js';
import { OPERATIONS, type Operation } from '../attributes/index.js';

export const schema = z.strictObject({
  ...entryFields(),
  lifetime: z.literal('timed', 'The lifetime is timed.').default('timed'),
  lasts: duration(),
  /** Two of the same effect each end on their own clock. */
  stacking: z.literal('separate', 'The stacking mode is separate.').default('separate'),
  /** Amounts are taken once, when the effect starts. Percents are written as 40 for +40 %. */
  modifiers: z
    .array(
      z.strictObject({
        attribute: reference('attributes'),
        operation: z.enum(OPERATIONS, `One of ${OPERATIONS.join(', ')} is expected.`),
        amount: amount(['source']),
      }),
    )
    .max(20, 'An effect has at most 20 modifiers.')
    .default([]),
  grants: z.array(reference('statuses')).max(20).default([]),
  see: visibility().default('everyone'),
});

export interface EffectEntry {
  readonly id: string;
  readonly label: string;
  readonly note?: string;
  readonly lifetime: 'timed';
  readonly lasts: string;
  readonly stacking: 'separate';
  readonly modifiers: readonly { readonly attribute: string; readonly operation: Operation; readonly amount: AmountSource }[];
  readonly grants: readonly string[];
  readonly see: z.infer<ReturnType<typeof visibility>>;
}
