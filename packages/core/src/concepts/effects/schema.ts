import { z } from 'zod';
import { amount, duration, entryFields, finite, mention, reference, timeAmount, visibility } from '../../ruleset/fields.js';
import { described } from '../../ruleset/described.js';
import { actionList, pattern } from '../../ruleset/registry.js';
import { ownReactions } from '../reactions/schema.js';
import { OPERATIONS } from '../attributes/schema.js';
import { defineChapter } from '../../ruleset/chapter.js';

/**
 * - `instant`: what follows from it happens at once, and nothing stays
 * - `timed`: ends after a time
 * - `lasting`: stays until something ends it
 * - `untilUsed`: stays until an event has used it up, or its time is over if it has one
 */
export const LIFETIMES = ['instant', 'timed', 'lasting', 'untilUsed'] as const;
/**
 * What happens when one is on already:
 * - `separate`: another instance, on its own clock
 * - `refresh`: its time begins anew, and it gains a stack up to the most
 * - `extend`: its time is added to what is left, up to the most times its length
 * - `strongest`: another instance on its own clock, of which only the strongest counts
 * - `once`: it is refused
 */
export const STACKING = ['separate', 'refresh', 'extend', 'strongest', 'once'] as const;
/** Why an instance ended. */
export const REASONS = ['ranOut', 'used', 'removed', 'ownerGone'] as const;
export type Reason = (typeof REASONS)[number];

const PARTIES = ['source'] as const;
const someOf = (chapter: string) => z.array(mention(chapter)).max(20).default([]);

export const schema = z.strictObject({
  ...entryFields(),
  lifetime: z.enum(LIFETIMES, `One of ${LIFETIMES.join(', ')} is expected.`).default('timed'),
  /** How long a timed effect lasts; for one that is used up, how long at most. */
  lasts: described(timeAmount(PARTIES), { atOnce: '{entry} is over as it begins' }).optional(),
  /** What uses it up, and how many times it takes. */
  used: z
    .strictObject({ times: finite().int('Uses are a whole number.').min(1, 'At least one use.').max(1000).default(1), by: pattern() })
    .optional(),
  stacking: z.enum(STACKING, `One of ${STACKING.join(', ')} is expected.`).default('separate'),
  /** Most stacks of a refreshing effect, most instances of separate ones, most lengths of an extending one. */
  most: finite().int('The most is a whole number.').min(1, 'At least one.').max(1000).optional(),
  /** Whether those of different sources are counted together or apart. */
  per: z.enum(['target', 'source'], 'One of target, source is expected.').default('target'),
  /** What strength is measured by, for the strongest; the size of its first modifier where nothing is said. */
  strength: amount(PARTIES).optional(),
  modifiers: z
    .array(
      z.strictObject({
        attribute: reference('attributes'),
        operation: z.enum(OPERATIONS, `One of ${OPERATIONS.join(', ')} is expected.`),
        /** Percents are written as 40 for +40 %. Taken once, when the effect starts, unless it is live. */
        amount: amount(PARTIES),
        live: z.boolean().optional(),
      }),
    )
    .max(20, 'An effect has at most 20 modifiers.')
    .default([]),
  grants: z.array(reference('statuses')).max(20).default([]),
  periodic: z.strictObject({ every: duration(), atOnce: z.boolean().optional(), then: actionList().default([]) }).optional(),
  /** What keeps it from starting. */
  blocked: z.strictObject({ statuses: someOf('statuses'), effects: someOf('effects') }).optional(),
  /** What it ends when it starts: effects, and whatever grants a status. */
  ends: z.strictObject({ statuses: someOf('statuses'), effects: someOf('effects') }).optional(),
  onStart: actionList().optional(),
  onStack: actionList().optional(),
  onEnd: z
    .array(
      z.strictObject({
        reason: z.enum(['any', ...REASONS], `One of any, ${REASONS.join(', ')} is expected.`).default('any'),
        then: actionList(),
      }),
    )
    .max(10)
    .default([]),
  /** What its bearer does when something happens, for as long as it is on. */
  reactions: ownReactions(),
  see: visibility().default('everyone'),
});
export type EffectEntry = z.infer<typeof schema>;
export const effectChapter = defineChapter('effects', schema);
