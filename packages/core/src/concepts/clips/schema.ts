import { z } from 'zod';
import { duration, entryFields, reference } from '../../ruleset/fields.js';

const MOST_MARKS = 50;
/** The name of a moment within a clip. */
export const markName = () =>
  z.string('A mark has a name.').regex(/^[A-Za-z][A-Za-z0-9_-]{0,39}$/, 'A mark is a word of at most 40 letters, digits, - or _.');

export const schema = z.strictObject({
  ...entryFields(),
  length: duration(),
  marks: z
    .array(z.strictObject({ mark: markName(), at: duration() }))
    .max(MOST_MARKS, `A clip has at most ${MOST_MARKS} marks.`)
    .default([]),
});

export type ClipEntry = z.infer<typeof schema>;

/** A stretch of a clip: from one mark (or its beginning) to another (or its end). */
export const clipSpan = () => z.strictObject({ clip: reference('clips'), from: markName().optional(), mark: markName().optional() });
export type ClipSpan = z.infer<ReturnType<typeof clipSpan>>;
