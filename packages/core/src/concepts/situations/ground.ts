import { arena, type Arena } from '../arena/index.js';
import { actorChapter } from '../actors/schema.js';
import { behaviours } from '../behaviours/index.js';
import { NO_SPAWNERS, spawners } from '../spawners/index.js';
import { zones } from '../zones/index.js';
import type { Rules } from '../../ruleset/rules.js';

/** The sides of bare ground. */
const SIDE = 2000;

/** Rules with some of what concepts came to replaced. */
const replacing = (rules: Rules, parts: readonly (readonly [string, unknown])[]): Rules => ({
  ...rules,
  compiled: new Map([...rules.compiled, ...parts]),
});

/** The same rules on wide ground on which nothing lies and nobody stands. */
export function onBareGround(rules: Rules): Rules {
  const ground: Arena = { width: SIDE, height: SIDE, walls: [], starts: [], placed: [] };
  return {
    ...replacing(rules, [
      [arena.id, ground],
      [zones.id, []],
      [spawners.id, NO_SPAWNERS],
    ]),
    document: { ...rules.document, arena: ground },
  };
}

/** The same rules, under which some kinds of actors do nothing by themselves. */
export function withoutMinds(rules: Rules, isStill: (actor: string) => boolean): Rules {
  const kinds = actorChapter.of(rules);
  const minds = behaviours.of(rules).map((mind, i) => (kinds[i] && isStill(kinds[i].id) ? { ...mind, behaviour: undefined } : mind));
  return replacing(rules, [[behaviours.id, minds]]);
}
