import type { Finding } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';
import type { Look } from '../../world/concept.js';
import type { CompiledTracks } from './compile.js';
import { lackedByPlayers } from '../attributes/lacking.js';
import { actionsNamed } from '../../analysis/collect.js';

/** Levels that nobody reaches, and rewards that stand above the top. */
export const findings: readonly Look<CompiledTracks>[] = [ofEach, (_, rules) => lackedByPlayers(rules, 'tracks', ['onLevel'])];

function ofEach({ entries, list }: CompiledTracks, rules: Rules): readonly Finding[] {
  const awarded = new Set(actionsNamed(rules, 'award').map((action) => String(action['track'])));
  return entries.flatMap((entry, i): Finding[] => {
    const path = `/tracks/${i}`;
    const found: Finding[] = [];
    if (entry.sources.length === 0 && !awarded.has(entry.id))
      found.push({
        kind: 'neverReached',
        path,
        message: `Nobody ever gets beyond level 1 of ${entry.label}: it has no source, and nothing awards it. Add a source, or an award to what should give it.`,
      });
    entry.onLevel.forEach(({ from = 2, to = entry.levels }, k) => {
      if (from > entry.levels)
        found.push({
          kind: 'neverReached',
          path: `${path}/onLevel/${k}/from`,
          message: `Level ${from} is above the top: ${entry.label} has ${entry.levels} levels. Lower it, or add levels.`,
        });
      else if (to > entry.levels)
        found.push({
          kind: 'neverReached',
          path: `${path}/onLevel/${k}/to`,
          message: `Level ${to} is above the top: ${entry.label} has ${entry.levels} levels.`,
          fix: { label: `End at level ${entry.levels}`, patch: [{ op: 'replace', path: `${path}/onLevel/${k}/to`, value: entry.levels }] },
        });
      else if (from === 1 && to === 1)
        found.push({
          kind: 'neverReached',
          path: `${path}/onLevel/${k}`,
          message: `Everybody begins at level 1: it is never reached, and nothing follows from it. Use what happens as an actor appears instead.`,
        });
    });
    const table = list[i];
    for (let level = 2; level < table.levels; level++)
      if (table.need(rules, level) < table.need(rules, level - 1) / 2) {
        found.push({
          kind: 'curveFalls',
          path: `${path}/needs`,
          message: `From level ${level} to ${level + 1} takes less than half of what the level before took: look at the curve.`,
        });
        break;
      }
    return found;
  });
}
