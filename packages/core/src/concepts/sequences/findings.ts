import { collect } from '../../analysis/collect.js';
import type { Finding } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';
import type { Branch } from './system.js';

/** Picks of which none is ever picked. */
export function findings(_: unknown, rules: Rules): readonly Finding[] {
  return collect(rules).actions.flatMap(({ action, place: { path } }): readonly Finding[] => {
    if (action.do !== 'pick') return [];
    const among = action['among'] as readonly Branch[];
    if (among.some(({ weight }) => typeof weight !== 'number' || weight > 0)) return [];
    return [{ kind: 'doesNothing', path, message: 'Of these none is ever picked: give one a weight above 0.' }];
  });
}
