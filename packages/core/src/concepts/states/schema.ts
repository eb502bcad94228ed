import { z } from 'zod';
import { entryFields, mention, timeAmount, visibility } from '../../ruleset/fields.js';
import { pattern } from '../../ruleset/registry.js';

/** What a state can allow an actor to do on its own. */
export const ALLOWED = ['move', 'use'] as const;

export const schema = z.strictObject({
  ...entryFields(),
  /** What an actor may do of its own will while it is in it. */
  allows: z.array(z.enum(ALLOWED, `One of ${ALLOWED.join(', ')} is expected.`)).default([]),
  /** It is entered when this status begins and left when it ends. */
  while: mention('statuses').optional(),
  /** It ends by itself after this time. */
  lasts: timeAmount().optional(),
  /** The event that ends it. */
  ends: pattern().optional(),
  /** The states from which it may be entered; any where nothing is said. */
  from: z.array(mention('states')).max(50).optional(),
  /** The states that may take its place before it ends; any where nothing is said. */
  into: z.array(mention('states')).max(50).optional(),
  see: visibility().default('everyone'),
});
export type StateEntry = z.infer<typeof schema>;
