import { actionsWritten } from '../../analysis/collect.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import { question, type Question } from '../../ruleset/questions.js';
import { sameMembers } from '../../ruleset/recording.js';
import type { Rules } from '../../ruleset/rules.js';
import type { CompiledStates } from './compile.js';
import { GIVEN } from './given.js';
import type { StateEntry } from './schema.js';

/** The ids of states that nothing leads out of: no time, no status, no event, no ability and no action ends them. */
export const withoutWayOut: Question<ReadonlySet<string>> = question((rules) => {
  const own = rules.document['states'] as readonly StateEntry[];
  const entering = actionsWritten(rules, 'enter');
  const leaving = actionsWritten(rules, 'leave');
  const ends = (entry: StateEntry) => {
    const entered = entering.filter((action) => action['state'] === entry.id);
    const timed = entered.length > 0 && entered.every((action) => action['for'] !== undefined);
    const byItself = (entry.while ?? entry.lasts ?? entry.ends) !== undefined;
    return byItself || timed || leaving.some((action) => action['state'] === entry.id) || phases(rules).has(entry.id);
  };
  return new Set(own.filter((entry) => !GIVEN.some(({ id }) => id === entry.id) && !ends(entry)).map(({ id }) => id));
}, sameMembers);

/** States that nothing leads out of, and those that nothing leads into. */
export function findings({ entries }: CompiledStates, rules: Rules): readonly Finding[] {
  const own = (rules.document['states'] as readonly unknown[]).length;
  const entering = actionsWritten(rules, 'enter');
  return entries.slice(0, own).flatMap((entry, i): readonly Finding[] => {
    if (GIVEN.some(({ id }) => id === entry.id)) return [];
    const entered = entering.filter((action) => action['state'] === entry.id);
    const phase = phases(rules).has(entry.id);
    if (entered.length === 0 && entry.while === undefined && !phase)
      return [
        {
          kind: 'unused',
          path: pointer(['states', i]),
          message: `Nothing leads into ${entry.label}: no action enters it, it goes with no status, and no ability puts its user into it.`,
          fix: { label: `Delete ${entry.label}`, patch: [{ op: 'remove', path: pointer(['states', i]) }] },
        },
      ];
    if (!withoutWayOut(rules).has(entry.id)) return [];
    return [
      {
        kind: 'stuckState',
        path: pointer(['states', i]),
        message: `Nothing leads out of ${entry.label}: it has no time, no status and no event that ends it, and no action does. Who gets into it stays.`,
        fix: { label: 'Let it end after 3 s', patch: [{ op: 'add', path: pointer(['states', i, 'lasts']), value: '3s' }] },
      },
    ];
  });
}

/** The states into which abilities put their users while they cast, channel or recover: the ability ends them. */
const phases: Question<ReadonlySet<string | undefined>> = question((rules) => {
  const list = rules.document['abilities'] as readonly Readonly<Record<string, { readonly state?: string } | undefined>>[];
  return new Set(list.flatMap((ability) => [ability['cast'], ability['channel'], ability['recovery']].map((part) => part?.state)));
}, sameMembers);
