import type { Rules } from '../../ruleset/rules.js';
import type { Visibility } from '../../world/columns.js';
import type { World } from '../../world/world.js';
import { actors } from '../actors/index.js';
import { type AbilityEntry } from './schema.js';

export function everyActor(world: World, work: (world: World, row: number) => void): void {
  world.actors.each((row) => work(world, row));
}

/** What of a skill tree says which abilities players learn in it. */
interface Teaching {
  readonly id: string;
  readonly nodes: readonly { readonly gives?: { readonly ability?: string } }[];
}

/** Who may see an ability: those that it says; nobody one that is its owner's alone and never a player's. */
export function seenBy(rules: Rules, { id, see }: AbilityEntry): Visibility {
  if (see !== 'owner') return see;
  const isPlayers = actors.of(rules).some((type) => type.kind === 'player' && type.abilities.includes(id));
  const trees = (rules.chapters.get('trees')?.entries ?? []) as readonly { id: string }[] as readonly Teaching[];
  return isPlayers || trees.some(({ nodes }) => nodes.some(({ gives }) => gives?.ability === id)) ? see : 'server';
}
