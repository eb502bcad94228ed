import { actorCalled } from '../../actors/index.js';
import { actorOfSeat } from '../../seats/index.js';
import { idOf, labelOf } from '../../../ruleset/rules.js';
import { didYouMean } from '../../../ruleset/suggest.js';
import type { World } from '../../../world/world.js';
import { EVERYBODY, type Given, type Who } from '../schema.js';

/** An actor that a check speaks of: its handle, and what the check calls it. */
export interface Member {
  readonly actor: number;
  readonly name: string;
}

/** The handle of whoever is called so in a world; 0 where nobody is. */
export const actorNamed = (world: World, name: string): number => actorOfSeat(world, name) || actorCalled(world, name);

/** Who is meant in a world: for a name nobody or one, for a kind or a crew whoever is there. */
export function membersOf(world: World, given: readonly Given[], who: Who | undefined): readonly Member[] {
  if (who === undefined || who === EVERYBODY) return given.flatMap(({ name }) => memberOf(world, name));
  if (typeof who === 'string') return memberOf(world, who);
  const { type, team } = world.actors.cells;
  const isMeant = (row: number) =>
    'every' in who ? idOf(world.rules, 'actors', type[row]) === who.every : idOf(world.rules, 'teams', team[row]) === who.crew;
  return world.actors
    .rows()
    .filter(isMeant)
    .map((row) => ({ actor: world.actors.handle(row), name: world.text(world.actors.cells.name[row]) }));
}

const memberOf = (world: World, name: string): readonly Member[] => {
  const actor = actorNamed(world, name);
  return actor === 0 ? [] : [{ actor, name }];
};

/** Why nobody is meant, in a sentence. */
export function nobodyWords(world: World, given: readonly Given[], who: Who | undefined): string {
  if (typeof who === 'object')
    return 'every' in who
      ? `Nobody here is a ${labelOf(world.rules, 'actors', who.every).toLowerCase()}.`
      : `Nobody here is in ${labelOf(world.rules, 'teams', who.crew)}.`;
  if (who === undefined || who === EVERYBODY) return 'Nobody was given.';
  const names = given.map(({ name }) => name);
  return names.includes(who) ? `${who} is not there any more.` : `Nobody here is called ${who}.${didYouMean(who, names)}`;
}
