import { type Finding, pointer } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';
import type { DialogueEntry } from './schema.js';

/** Lines that nothing leads to, and dialogues that nothing leads out of. */
export function findings(_: unknown, rules: Rules): readonly Finding[] {
  return (rules.document['dialogues'] as readonly DialogueEntry[]).flatMap((entry, i) => {
    const { lines } = entry;
    const reached = new Set<number>();
    let ends = false;
    const visit = (at: number) => {
      ends ||= at < 0 || at >= lines.length;
      if (at < 0 || at >= lines.length || reached.has(at)) return;
      reached.add(at);
      const { next, choices = [], if: test } = lines[at];
      const follow = (to: string | undefined) => visit(to === undefined ? at + 1 : lines.findIndex(({ id }) => id === to));
      if (choices.length > 0) {
        // Who says nothing to a choice ends it.
        ends = true;
        for (const choice of choices) follow(choice.next);
      } else follow(next);
      // One that does not hold is passed over.
      if (test !== undefined) visit(at + 1);
    };
    visit(0);
    const unsaid = lines.flatMap((line, k): readonly Finding[] =>
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
    if (ends) return unsaid;
    const message = `${entry.label} has no end: its lines lead to each other again and again. Let one lead to "end".`;
    return [...unsaid, { kind: 'neverEnds', path: pointer(['dialogues', i, 'lines']), message }];
  });
}
