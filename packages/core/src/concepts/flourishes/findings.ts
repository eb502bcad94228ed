import { collect } from '../../analysis/collect.js';
import type { Finding } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';

/** Flourishes of nothing at all. */
export function findings(_: unknown, rules: Rules): readonly Finding[] {
  return collect(rules).actions.flatMap(({ action, place: { path } }): readonly Finding[] => {
    const { do: name, to: _to, once: _once, ...args } = action;
    if (name !== 'flourish' || Object.keys(args).length > 0) return [];
    return [{ kind: 'doesNothing', path, message: 'This shows nothing and sounds like nothing: say a text, a sound, a shake or a fade.' }];
  });
}
