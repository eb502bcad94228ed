import { brought } from '../../analysis/collect.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';
import type { Look } from '../../world/concept.js';
import { actorChapter } from './schema.js';

/** Kinds of actor of which none is a player's, and those that stand nowhere. */
export const findings: readonly Look<unknown>[] = [(_, rules) => standingNowhere(rules), (_, rules) => withoutPlayer(rules)];

function withoutPlayer(rules: Rules): readonly Finding[] {
  const types = actorChapter.of(rules);
  if (types.length === 0 || types.some(({ kind }) => kind === 'player')) return [];
  return [
    {
      kind: 'noPlayer',
      path: '/actors',
      message: 'There is no player: nobody can take a seat. Make a kind of actor whose kind is player.',
    },
  ];
}

/** Characters and foes that stand nowhere and that nothing brings. */
function standingNowhere(rules: Rules): readonly Finding[] {
  const there = brought(rules, 'actors');
  if (rules.document['arena'] === undefined) return [];
  return actorChapter.of(rules).flatMap(({ id, label, kind }, i): readonly Finding[] =>
    !['character', 'foe'].includes(kind) || there.has(id)
      ? []
      : [
          {
            kind: 'standsNowhere',
            path: pointer(['actors', i]),
            message: `${label} stands nowhere: the arena does not place it, no spawner makes it and no action brings it. Place one, or delete it.`,
          },
        ],
  );
}
