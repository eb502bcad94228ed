import { actorChapter } from '../actors/schema.js';
import { spotsOf } from '../arena/index.js';
import type { Rules } from '../../ruleset/rules.js';

/** What players can do, aimed at nothing in particular and at each place in the arena. */
export function usesWorthTrying(rules: Rules): readonly Readonly<Record<string, unknown>>[] {
  const own = actorChapter.of(rules).flatMap(({ kind, abilities }) => (kind === 'player' ? abilities : []));
  return [...new Set(own)].flatMap((ability) => [{ ability }, ...spotsOf(rules).map((spot) => ({ ability, ...spot }))]);
}
