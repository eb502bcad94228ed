import { z } from 'zod';
import { amount, duration, entryFields, finite, mention, reference, timeAmount, visibility, word, yesOrNo } from '../../ruleset/fields.js';
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
  lifetime: word(
    LIFETIMES,
    { instant: 'is over at once', timed: 'lasts for', lasting: 'stays until something ends it', untilUsed: 'stays until used up' },
    { instant: 'only what follows from it', timed: 'ends after a time', lasting: 'lasting', untilUsed: 'by an event' },
  ).default('timed'),
  /** How long a timed effect lasts; for one that is used up, how long at most. */
  lasts: described(timeAmount(PARTIES), { atOnce: '{entry} is over as it begins', absent: 'ever' }).optional(),
  /** What uses it up, and how many times it takes. */
  used: z
    .strictObject({
      times: described(finite().int('Uses are a whole number.').min(1, 'At least one use.').max(1000), { unit: 'times' }).default(1),
      by: pattern(),
    })
    .optional(),
  stacking: word(
    STACKING,
    {
      separate: 'is an instance of its own',
      refresh: 'begins the time anew',
      extend: 'adds its time to what is left',
      strongest: 'counts if it is the strongest',
      once: 'is refused',
    },
    {
      separate: 'each on its own clock',
      refresh: 'and may add a stack',
      extend: 'one instance',
      strongest: 'the others wait',
      once: 'one at a time',
    },
  ).default('separate'),
  /** Most stacks of a refreshing effect, most instances of separate ones, most lengths of an extending one. */
  most: finite().int('The most is a whole number.').min(1, 'At least one.').max(1000).optional(),
  /** Whether those of different sources are counted together or apart. */
  per: word(['target', 'source'], { target: 'its bearer', source: 'each source' }).default('target'),
  /** What strength is measured by, for the strongest; the size of its first modifier where nothing is said. */
  strength: described(amount(PARTIES), { absent: 'its first amount' }).optional(),
  modifiers: z
    .array(
      z.strictObject({
        attribute: reference('attributes', ['stat']),
        operation: word(OPERATIONS, {
          add: 'gains',
          percent: 'changes by',
          times: 'is multiplied by',
          set: 'is set to',
          atLeast: 'is at least',
          atMost: 'is at most',
        }),
        /** Percents are written as 40 for +40 %. Taken once, when the effect starts, unless it is live. */
        amount: amount(PARTIES),
        live: yesOrNo('kept up to date', 'taken as it starts').optional(),
      }),
    )
    .max(20, 'An effect has at most 20 modifiers.')
    .default([]),
  grants: z.array(reference('statuses')).max(20).default([]),
  periodic: z
    .strictObject({ every: duration(), atOnce: yesOrNo('and at once', 'and not at once').optional(), then: actionList().default([]) })
    .optional(),
  /** What keeps it from starting. */
  blocked: z.strictObject({ statuses: someOf('statuses'), effects: someOf('effects') }).optional(),
  /** What it ends when it starts: effects, and whatever grants a status. */
  ends: z.strictObject({ statuses: someOf('statuses'), effects: someOf('effects') }).optional(),
  onStart: actionList().optional(),
  onStack: actionList().optional(),
  onEnd: z
    .array(
      z.strictObject({
        reason: word(['any', ...REASONS], {
          any: 'ends',
          ranOut: 'runs out',
          used: 'is used up',
          removed: 'is removed',
          ownerGone: 'goes with its bearer',
        }).default('any'),
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
