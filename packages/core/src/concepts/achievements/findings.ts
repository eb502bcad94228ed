import { possibleUnder } from '../attributes/possible.js';
import type { Finding } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';
import { type CompiledAchievements } from './state.js';
import { isUnlockedByAction } from './system.js';
import { lackedByPlayers } from '../attributes/lacking.js';

/** Conditions that nobody can ever meet, and those that all meet from the start. */
export function findings(compiled: CompiledAchievements, rules: Rules): readonly Finding[] {
  return [...ofConditions(compiled, rules), ...lackedByPlayers(rules, 'achievements', ['then'])];
}

function ofConditions({ entries }: CompiledAchievements, rules: Rules): readonly Finding[] {
  const possible = possibleUnder(rules);
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
    return possible.whoCan(wanted, ['player']).length > 0 || isUnlockedByAction(rules.document, id)
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
