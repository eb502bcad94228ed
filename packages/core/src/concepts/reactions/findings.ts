import { unheardIn } from '../../analysis/wiring.js';
import type { Finding } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';

/** Whatever waits for an event that nobody can announce: reactions, and every other place that an event stands in. */
export function findings(_: unknown, rules: Rules): readonly Finding[] {
  return unheardIn(rules).map(({ place, message }) => ({ kind: 'neverHeard', path: place.path, message }));
}
