import { z } from 'zod';
import type { CompileContext } from '../../ruleset/context.js';
import { duration, entryFields, reference, toMilliseconds } from '../../ruleset/fields.js';
import type { Path } from '../../ruleset/problem.js';
import { defineConcept } from '../../world/concept.js';

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

/** Clips: how long animations are and where in them things happen. Only lengths and marks matter to rules. */
export const clips = defineConcept<readonly ClipEntry[]>({
  id: 'clips',
  sections: { clips: { kind: 'chapter', title: 'Clips', entry: schema } },
  compile: (context) => {
    const entries = context.entries<ClipEntry>('clips');
    entries.forEach(({ label, length, marks }, i) =>
      marks.forEach(({ mark, at }, k) => {
        if (marks.findIndex((other) => other.mark === mark) < k)
          context.problem(['clips', i, 'marks', k, 'mark'], `${label} has a mark ${mark} already.`);
        if (toMilliseconds(at) > toMilliseconds(length))
          context.problem(['clips', i, 'marks', k, 'at'], `${mark} is at ${at}, after the end of ${label} at ${length}.`);
      }),
    );
    return entries;
  },
});

/** The length of a stretch of a clip in seconds. A mark that is not there is reported, and the clip's end taken for it. */
export function spanSeconds(context: CompileContext, span: ClipSpan, path: Path): number {
  const clip = context.entries<ClipEntry>('clips')[context.index('clips', span.clip)] as ClipEntry | undefined;
  if (!clip) return 0;
  const at = (field: 'from' | 'mark', otherwise: number) => {
    const name = span[field];
    if (name === undefined) return otherwise;
    const mark = clip.marks.find((m) => m.mark === name);
    if (mark) return toMilliseconds(mark.at);
    const known = clip.marks.map((m) => m.mark);
    context.problem(
      [...path, field],
      `${clip.label} has no mark ${name}: ${known.length === 0 ? 'it has none at all' : `it has ${known.join(', ')}`}.`,
    );
    return otherwise;
  };
  const from = at('from', 0);
  const to = at('mark', toMilliseconds(clip.length));
  if (to < from) context.problem([...path, 'mark'], `This mark comes before ${span.from}, from where the time is taken.`);
  return Math.max(0, to - from) / 1000;
}
