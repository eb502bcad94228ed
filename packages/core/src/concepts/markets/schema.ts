import { z } from 'zod';
import { entryFields, finite, reference } from '../../ruleset/fields.js';
import { defineChapter } from '../../ruleset/chapter.js';

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
  at: reference('actors').optional(),
  reach: finite().min(1, 'A reach is 1 to 1000.').max(1000, 'A reach is 1 to 1000.').default(60),
  goods: z
    .array(
      z.strictObject({
        good: reference('attributes'),
        price,
        /** Prices in whole amounts. */
        whole: z.boolean('true or false is expected.').default(true),
      }),
    )
    .max(50, 'A market has at most 50 goods.')
    .default([]),
});
export type MarketEntry = z.infer<typeof schema>;
export type PriceJson = MarketEntry['goods'][number]['price'];
export const marketChapter = defineChapter('markets', schema);
