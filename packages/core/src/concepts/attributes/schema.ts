import { z } from 'zod';
import {
  amount,
  colour,
  condition,
  duration,
  entryFields,
  finite,
  id,
  start,
  steadyAmount,
  visibility,
  word,
  yesOrNo,
} from '../../ruleset/fields.js';
import { described } from '../../ruleset/described.js';
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
  every: described(duration(), { absent: 'tick' }).optional(),
  /** How long refilling rests after a loss. A drain never rests. */
  pause: described(duration(), { absent: 'no time' }).optional(),
  /** It refills, or drains, only while this holds. */
  while: described(condition(), { absent: 'always' }).optional(),
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
  margin: described(steadyAmount(), { absent: '0' }).optional(),
  enter: actionList().default([]),
  leave: actionList().default([]),
});
export type ThresholdEntry = z.infer<typeof threshold>;

export const schema = z.strictObject({
  ...entryFields(),
  kind: word(
    ATTRIBUTE_KINDS,
    { pool: 'pool', stat: 'stat', counter: 'counter' },
    { pool: 'drains and refills between bounds', stat: 'a base and what modifies it', counter: 'counts whole things' },
  ),
  /** The first value: an amount, `full` for the maximum, or a share of it. */
  start: start().optional(),
  min: steadyAmount().default(0),
  max: described(steadyAmount(), { absent: 'no end' }).optional(),
  follow: word(FOLLOWS, { keep: 'keeps its value', share: 'keeps its share of it', along: 'moves along by as much' }).default('keep'),
  whole: yesOrNo('whole numbers', 'fractions').default(false),
  refill: refill.optional(),
  /** How much of what hurts it gets through; `event.asked` is what was asked. All of it when left out. */
  taken: amount(['source'], ['asked']).optional(),
  thresholds: z.array(threshold).max(12, 'An attribute has at most 12 thresholds.').default([]),
  see: visibility().default('owner'),
  /** Decimals that seats are told. */
  decimals: described(finite().int('Decimals are a whole number.').min(0, 'Decimals: 0 to 4.').max(4, 'Decimals: 0 to 4.'), {
    unit: 'decimals',
    words: { 0: 'no decimals', 1: 'one decimal', 2: 'two decimals', 3: 'three decimals', 4: 'four decimals' },
    absent: 'one decimal',
  }).optional(),
  unit: described(z.string().max(20), { absent: 'no unit' }).optional(),
  colour: colour().optional(),
  icon: described(z.enum(ICONS, `One of ${ICONS.join(', ')} is expected.`), { absent: 'none' }).optional(),
  group: described(z.string().max(40), { absent: 'nothing' }).optional(),
  /** Kept per player between sessions; counters always are. */
  saved: yesOrNo('is kept', 'is forgotten').optional(),
});
export type AttributeEntry = z.infer<typeof schema>;
export const attributeChapter = defineChapter('attributes', schema);
