import { toMilliseconds } from '../../ruleset/fields.js';
import { defineConcept } from '../../world/concept.js';
import { clips } from './state.js';
import { type ClipEntry, schema } from './schema.js';

export { clips } from './state.js';
export { type ClipEntry, type ClipSpan, clipSpan, markName } from './schema.js';
export { spanSeconds } from './system.js';

/** Clips: how long animations are and where in them things happen. Only lengths and marks matter to rules. */
export const clipsConcept = defineConcept(clips, {
  sections: {
    clips: {
      kind: 'chapter',
      title: 'Clips',
      entry: schema,
      unused: 'no cast and no recovery is as long as it. Time an ability by it, or delete it.',
    },
  },
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
  workbench: async () => (await import('../workbenches.js')).clips,
});
