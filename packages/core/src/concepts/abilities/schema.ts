import { z } from 'zod';
import { entryFields, reference, steadyAmount, timeAmount } from '../../ruleset/fields.js';
import { actionList } from '../../ruleset/registry.js';

export const schema = z.strictObject({
  ...entryFields(),
  costs: z
    .array(z.strictObject({ attribute: reference('attributes'), amount: steadyAmount() }))
    .max(10, 'An ability has at most 10 costs.')
    .default([]),
  /** A time such as "8s", or a formula that yields seconds. */
  cooldown: timeAmount().optional(),
  then: actionList().default([]),
});
export type AbilityEntry = z.infer<typeof schema>;
