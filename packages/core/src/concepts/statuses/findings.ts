import { possibleUnder } from '../attributes/possible.js';
import { type Finding, pointer } from '../../ruleset/problem.js';

import type { Rules } from '../../ruleset/rules.js';
import { mentionsIn } from '../../ruleset/mentions.js';
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
function askedFor(rules: Rules): ReadonlySet<string> {
  const asked = new Set<string>();
  for (const part of mentionsIn(rules))
    if (part.chapter !== 'situations')
      for (const { speaksOf } of part.mentions) for (const { chapter, id } of speaksOf) if (chapter === 'statuses') asked.add(id);
  return asked;
}
