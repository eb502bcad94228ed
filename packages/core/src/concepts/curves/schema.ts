import { z } from 'zod';
import { entryFields, finite } from '../../ruleset/fields.js';

export const schema = z.strictObject({
  ...entryFields(),
  points: z
    .array(z.tuple([finite(), finite()]), 'A list of [x, y] points is expected.')
    .min(2, 'A curve has at least two points.')
    .max(500, 'A curve has at most 500 points.')
    .refine(
      (points) => points.every(([x], i) => i === 0 || points[i - 1][0] < x),
      'The points go from left to right: each x is above the one before.',
    ),
});
export type CurveEntry = z.infer<typeof schema>;
