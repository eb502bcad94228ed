import { possibleUnder } from '../attributes/possible.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import { readsOf } from '../../ruleset/references.js';
import { registry } from '../../ruleset/registry.js';
import type { Rules } from '../../ruleset/rules.js';
import { walk } from '../../ruleset/walk.js';
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
  walk(registry().document, rules.document, [], (mark, value, path) => {
    if (path[0] === 'situations') return;
    const spoken = mark.kind === 'reference' ? [{ chapter: mark.chapter, id: value }] : readsOf(value, rules.vocabulary, mark.place);
    for (const { chapter, id } of spoken) if (chapter === 'statuses') asked.add(id);
  });
  return asked;
}
