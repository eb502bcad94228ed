import type { CompileContext } from '../../ruleset/context.js';
import { toMilliseconds } from '../../ruleset/fields.js';
import type { Path } from '../../ruleset/problem.js';
import { defineConcept } from '../../world/concept.js';
import { clips } from './state.js';
import { type ClipEntry, type ClipSpan, schema } from './schema.js';

export { clips } from './state.js';
export { type ClipEntry, type ClipSpan, clipSpan, markName } from './schema.js';

/** Clips: how long animations are and where in them things happen. Only lengths and marks matter to rules. */
export const clipsConcept = defineConcept(clips, {
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
