import { z } from 'zod';
import { entryFields, finite, reference, yesOrNo } from '../../ruleset/fields.js';
import { defineChapter } from '../../ruleset/chapter.js';
import { described } from '../../ruleset/described.js';

const price = z.union(
  [
    z
      .strictObject({ range: z.tuple([finite(), finite()]) })
      .refine(({ range: [least, most] }) => 0 <= least && least <= most, 'The lowest price comes first, and none is below 0.'),
    z.strictObject({
      walk: z
        .strictObject({ start: finite(), step: finite(), least: finite(), most: finite() })
        .refine(
          ({ start, step, least, most }) => 0 <= least && least <= start && start <= most && step >= 0,
          'A price walks between the least and the most, from a start between them, and none is below 0.',
        ),
    }),
  ],
  'A price is { "range": [least, most] }, or { "walk": { "start", "step", "least", "most" } }.',
);

export const schema = z.strictObject({
  ...entryFields(),
  /** The kind of actor that it is found at; open everywhere where nothing is said. */
  at: described(reference('actors', ['foe', 'character', 'prop']), { absent: 'no place: it is open everywhere' }).optional(),
  reach: finite().min(1, 'A reach is 1 to 1000.').max(1000, 'A reach is 1 to 1000.').default(60),
  goods: z
    .array(
      z.strictObject({
        good: reference('attributes', ['counter']),
        price,
        /** Prices in whole amounts. */
        whole: yesOrNo('in whole amounts', 'with fractions').default(true),
      }),
    )
    .max(50, 'A market has at most 50 goods.')
    .default([]),
});
export type MarketEntry = z.infer<typeof schema>;
export type PriceJson = MarketEntry['goods'][number]['price'];
export const marketChapter = defineChapter('markets', schema);
