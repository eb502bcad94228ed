import { type Finding, pointer } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';
import { attributeChapter } from './schema.js';

/** Pools that are always empty, and refills that refill by nothing. */
export function comingToNothing(rules: Rules): readonly Finding[] {
  return attributeChapter.of(rules).flatMap(({ label, kind, max, refill }, i): readonly Finding[] => {
    const path = pointer(['attributes', i]);
    if (kind === 'pool' && max === 0)
      return [{ kind: 'alwaysEmpty', path: `${path}/max`, message: `${label} is never more than 0: say how much it can be.` }];
    if (refill?.rate !== 0) return [];
    return [
      {
        kind: 'changesNothing',
        path: `${path}/refill/rate`,
        message: `${label} refills by 0 a second: it does not. Say how much.`,
      },
    ];
  });
}
