import { possibleUnder } from '../attributes/possible.js';
import type { Finding } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';
import type { Look } from '../../world/concept.js';
import { actionsWritten } from '../../analysis/collect.js';
import { type CompiledAchievements } from './state.js';
import { lackedByPlayers } from '../attributes/lacking.js';

/** Conditions that nobody can ever meet, and those that all meet from the start. */
export const findings: readonly Look<CompiledAchievements>[] = [
  ofConditions,
  (_, rules) => lackedByPlayers(rules, 'achievements', ['then']),
];

function ofConditions({ entries }: CompiledAchievements, rules: Rules): readonly Finding[] {
  const possible = possibleUnder(rules);
  const unlocked = new Set(actionsWritten(rules, 'unlock').map(({ achievement }) => achievement));
  return entries.flatMap(({ id, if: wanted, label }, i): Finding[] => {
    if (wanted === undefined) return [];
    if (possible.whoCan(`not (${wanted})`, ['player']).length === 0)
      return [
        {
          kind: 'unlockedAtOnce',
          path: `/achievements/${i}/if`,
          message: `${label} is unlocked as soon as somebody is there: “${wanted}” always holds. Ask for more.`,
        },
      ];
    return possible.whoCan(wanted, ['player']).length > 0 || unlocked.has(id)
      ? []
      : [
          {
            kind: 'neverUnlocked',
            path: `/achievements/${i}/if`,
            message: `Nobody can ever have ${label}: no player can meet “${wanted}”. Look at the bounds of what it reads.`,
          },
        ];
  });
}
