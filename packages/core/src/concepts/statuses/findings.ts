import { possibleUnder } from '../attributes/possible.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import { question, type Question } from '../../ruleset/questions.js';
import { sameItems, sameMembers } from '../../ruleset/recording.js';
import type { Rules } from '../../ruleset/rules.js';
import { sectionsDescribed } from '../../analysis/described.js';
import { mentionsInSection } from '../../ruleset/mentions.js';
import { type StatusEntry } from './schema.js';

/** Statuses that something asks for, and that nothing ever grants. */
export function findings(entries: readonly StatusEntry[], rules: Rules): readonly Finding[] {
  const possible = possibleUnder(rules);
  if (entries.every(({ id }) => possible.isGranted(id))) return [];
  const asked = askedFor(rules);
  return entries.flatMap(({ id, label }, i): readonly Finding[] => {
    if (possible.isGranted(id) || !asked.has(id)) return [];
    return [
      {
        kind: 'neverGranted',
        path: pointer(['statuses', i]),
        message: `${label} is asked for, and nothing grants it: nobody is ever ${label.toLowerCase()}. Have an effect or an action grant it.`,
      },
    ];
  });
}

/** Statuses that anything speaks of, but for what only tries entries out. */
const askedFor: Question<ReadonlySet<string>> = question(
  (rules) => new Set(sectionsDescribed().flatMap((section) => askedForIn(rules, section))),
  sameMembers,
);

const askedForIn: Question<readonly string[]> = question(
  (rules, section) =>
    mentionsInSection(rules, section).flatMap(({ mentions }) =>
      mentions.flatMap(({ speaksOf }) => speaksOf.flatMap(({ chapter, id }) => (chapter === 'statuses' ? [id] : []))),
    ),
  sameItems,
);
