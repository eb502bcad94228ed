import { type Finding, pointer } from '../ruleset/problem.js';
import { registry } from '../ruleset/registry.js';
import type { Rules } from '../ruleset/rules.js';
import { walk } from '../ruleset/walk.js';
import { ANY } from '../formula/index.js';
import { Possible } from './possible.js';

/** Where conditions are looked at by their own chapters, or ask of what only an event carries. */
const LOOKED_AT = /^\/(pickups|zones|loot|quests|achievements|offers|situations|economy\/goal|arena)\b|\/where$/;

/** Conditions that hold for no kind of actor, whatever happens. */
export function neverFindings(rules: Rules): readonly Finding[] {
  const possible = new Possible(rules);
  const found: Finding[] = [];
  walk(registry().document, rules.document, [], (mark, value, path) => {
    if (mark.kind !== 'formula' || mark.place.yields !== 'condition') return;
    const at = pointer(path);
    if (LOOKED_AT.test(at) || possible.mayFollow(value, () => ANY)) return;
    found.push({
      kind: 'neverHolds',
      path: at,
      message: `“${value}” never holds: no kind of actor can ever meet it. Say another condition, or take it out.`,
    });
  });
  return found;
}
