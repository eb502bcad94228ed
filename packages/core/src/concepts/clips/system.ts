import type { CompileContext } from '../../ruleset/context.js';
import { toMilliseconds } from '../../ruleset/fields.js';
import type { Path } from '../../ruleset/problem.js';
import { type ClipEntry, type ClipSpan } from './schema.js';

/** The length of a stretch of a clip in seconds. A mark that is not there is reported, and the clip's end taken for it. */
export function spanSeconds(context: CompileContext, span: ClipSpan, path: Path): number {
  const clip = context.entry<ClipEntry>('clips', span.clip);
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
