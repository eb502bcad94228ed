import { type Finding, pointer } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';
import type { DialogueEntry } from './schema.js';

/** Lines that nothing leads to. */
export function findings(_: unknown, rules: Rules): readonly Finding[] {
  return (rules.document['dialogues'] as readonly DialogueEntry[]).flatMap((entry, i) => {
    const { lines } = entry;
    const reached = new Set<number>();
    const visit = (at: number) => {
      if (at < 0 || at >= lines.length || reached.has(at)) return;
      reached.add(at);
      const { next, choices = [], if: test } = lines[at];
      const follow = (to: string | undefined) => visit(to === undefined ? at + 1 : lines.findIndex(({ id }) => id === to));
      if (choices.length > 0) for (const choice of choices) follow(choice.next);
      else follow(next);
      // One that does not hold is passed over.
      if (test !== undefined) visit(at + 1);
    };
    visit(0);
    return lines.flatMap((line, k): readonly Finding[] =>
      reached.has(k)
        ? []
        : [
            {
              kind: 'neverSaid',
              path: pointer(['dialogues', i, 'lines', k]),
              message: `Nothing leads to the line ${line.id} of ${entry.label}: it is never said.`,
            },
          ],
    );
  });
}
