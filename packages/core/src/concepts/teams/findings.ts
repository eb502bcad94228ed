import { type Finding, pointer } from '../../ruleset/problem.js';
import { labelOf, type Rules } from '../../ruleset/rules.js';
import { actorChapter } from '../actors/schema.js';
import { placements } from '../arena/index.js';
import { teamChapter } from './schema.js';

/** Foes in the one team that all players are in. */
export function findings(_: unknown, rules: Rules): readonly Finding[] {
  const teams = teamChapter.of(rules);
  if (teams.length !== 1 || teams[0].open === false) return [];
  const [only] = teams;
  const foes = new Set(actorChapter.of(rules).flatMap(({ id, kind }) => (kind === 'foe' ? [id] : [])));
  return placements(rules, 'actor').flatMap(({ index, thing: { actor, team, x, y } }): readonly Finding[] => {
    if (team !== only.id || !foes.has(actor)) return [];
    const path = pointer(['arena', 'placed', index, 'team']);
    return [
      {
        kind: 'onOneSide',
        path,
        message: `The ${labelOf(rules, 'actors', actor).toLowerCase()} at ${x}, ${y} is in the same team as all players, ${only.label}: they are no foes of each other. Take its team out, or write a second one.`,
        fix: { label: 'Take its team out', patch: [{ op: 'remove', path }] },
      },
    ];
  });
}
