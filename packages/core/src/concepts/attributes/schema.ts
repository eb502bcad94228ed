import { z } from 'zod';
import { amount, colour, condition, duration, entryFields, finite, id, start, steadyAmount, visibility } from '../../ruleset/fields.js';
import { actionList } from '../../ruleset/registry.js';
import { defineChapter } from '../../ruleset/chapter.js';

export const ATTRIBUTE_KINDS = ['pool', 'stat', 'counter'] as const;
/** What modifiers do to a stat. Several `set`: the lowest holds. */
export const OPERATIONS = ['add', 'percent', 'times', 'set', 'atLeast', 'atMost'] as const;
export type Operation = (typeof OPERATIONS)[number];
/** What a pool does when its maximum moves: keeps its value, keeps its share of the maximum, or moves along by as much. */
export const FOLLOWS = ['keep', 'share', 'along'] as const;
/** Signs that a display may draw beside a value. */
export const ICONS = ['air', 'bolt', 'coin', 'drop', 'flame', 'gauge', 'heart', 'shield', 'spark', 'star', 'tool', 'weight'] as const;

export const refill = z.strictObject({
  /** Per second; negative drains. */
  rate: steadyAmount(),
  /** How often it is applied; every tick when left out. */
  every: duration().optional(),
  /** How long refilling rests after a loss. A drain never rests. */
  pause: duration().optional(),
  /** It refills, or drains, only while this holds. */
  while: condition().optional(),
});

/**
 * A range on an attribute, ends included, with what happens on entering and on leaving it. `empty` and `full` are the
 * attribute's own bounds. Once inside, it is left only when the value is further outside than the margin.
 */
export const threshold = z.strictObject({
  id: id(),
  end: z.enum(['empty', 'full'], 'One of empty, full is expected.').optional(),
  from: steadyAmount().optional(),
  to: steadyAmount().optional(),
  margin: steadyAmount().optional(),
  enter: actionList().default([]),
  leave: actionList().default([]),
});
export type ThresholdEntry = z.infer<typeof threshold>;

export const schema = z.strictObject({
  ...entryFields(),
  kind: z.enum(ATTRIBUTE_KINDS, 'One of pool, stat, counter is expected.'),
  /** The first value: an amount, `full` for the maximum, or a share of it. */
  start: start().optional(),
  min: steadyAmount().default(0),
  max: steadyAmount().optional(),
  follow: z.enum(FOLLOWS, `One of ${FOLLOWS.join(', ')} is expected.`).default('keep'),
  whole: z.boolean().default(false),
  refill: refill.optional(),
  /** How much of what hurts it gets through; `event.asked` is what was asked. All of it when left out. */
  taken: amount(['source'], ['asked']).optional(),
  thresholds: z.array(threshold).max(12, 'An attribute has at most 12 thresholds.').default([]),
  see: visibility().default('owner'),
  /** Decimals that seats are told. */
  decimals: finite().int('Decimals are a whole number.').min(0, 'Decimals: 0 to 4.').max(4, 'Decimals: 0 to 4.').optional(),
  unit: z.string().max(20).optional(),
  colour: colour().optional(),
  icon: z.enum(ICONS, `One of ${ICONS.join(', ')} is expected.`).optional(),
  group: z.string().max(40).optional(),
  /** Kept per player between sessions; counters always are. */
  saved: z.boolean().optional(),
});
export type AttributeEntry = z.infer<typeof schema>;
export const attributeChapter = defineChapter('attributes', schema);
