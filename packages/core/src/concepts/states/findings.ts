import { everyAction } from '../../ruleset/actions.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';
import type { CompiledStates } from './compile.js';
import { GIVEN } from './given.js';

/** States that nothing leads out of, and those that nothing leads into. */
export function findings({ entries }: CompiledStates, rules: Rules): readonly Finding[] {
  const own = (rules.document['states'] as readonly unknown[]).length;
  const spoken = everyAction(rules.document);
  return entries.slice(0, own).flatMap((entry, i): readonly Finding[] => {
    if (GIVEN.some(({ id }) => id === entry.id)) return [];
    const entered = spoken.filter((action) => action.do === 'enter' && action['state'] === entry.id);
    const phase = usesAsPhase(rules, entry.id);
    if (entered.length === 0 && entry.while === undefined && !phase)
      return [
        {
          kind: 'unused',
          path: pointer(['states', i]),
          message: `Nothing leads into ${entry.label}: no action enters it, it goes with no status, and no ability puts its user into it.`,
          fix: { label: `Delete ${entry.label}`, patch: [{ op: 'remove', path: pointer(['states', i]) }] },
        },
      ];
    const timed = entered.length > 0 && entered.every((action) => action['for'] !== undefined);
    const left =
      (entry.while ?? entry.lasts ?? entry.ends) !== undefined ||
      timed ||
      spoken.some((action) => action.do === 'leave' && action['state'] === entry.id) ||
      phase;
    if (left) return [];
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

/** Whether an ability puts its user into a state while it casts, channels or recovers: the ability ends it. */
function usesAsPhase(rules: Rules, id: string): boolean {
  const list = (rules.document['abilities'] ?? []) as readonly Readonly<Record<string, { readonly state?: string } | undefined>>[];
  return list.some((ability) => [ability['cast'], ability['channel'], ability['recovery']].some((part) => part?.state === id));
}
