import { CompileContext } from '../../ruleset/context.js';
import { type Then } from '../../ruleset/registry.js';
import type { Rules } from '../../ruleset/rules.js';

/** Compiles an action that stands in no ruleset. The action has been checked before. */
export function compilePoke(rules: Rules, action: Then[number]) {
  const context = new CompileContext(rules.registry, rules);
  return context.then([action], ['poke']);
}
