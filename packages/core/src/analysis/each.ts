import type { ChapterDefinition } from '../ruleset/chapter.js';
import type { Finding } from '../ruleset/problem.js';
import { question } from '../ruleset/questions.js';
import { positionOf, type Rules } from '../ruleset/rules.js';

/**
 * Looks at each entry of a chapter by itself: after an edit only those are looked at again of which something was edited that was
 * read in looking at them.
 * @param look is given an entry, and its position
 */
export function atEach<E>(
  chapter: ChapterDefinition<E>,
  look: (entry: E, i: number, rules: Rules) => readonly Finding[],
): (rules: Rules) => readonly Finding[] {
  const one = question((rules, id) => {
    const entry = chapter.find(rules, id);
    return entry ? look(entry, positionOf(rules, chapter.name, id), rules) : [];
  });
  return (rules) => (rules.chapters.get(chapter.name)?.ids ?? []).flatMap((id) => one(rules, id));
}
