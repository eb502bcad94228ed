import type { CompileContext } from '../../ruleset/context.js';
import type { World } from '../../world/world.js';
import type { ActorEntry } from '../actors/index.js';
import { placements } from '../arena/index.js';
import type { AttributeEntry } from '../attributes/index.js';

/** An arena holds at most this many actors: what brings in more is refused. */
export const MOST_ACTORS = 2000;
/** All actors of an arena have at most so many values together, thresholds included: each is looked at in every tick. */
export const MOST_VALUES = 50_000;

/** How many values an actor of each kind has, with their thresholds. Says so where the arena places more than it holds. */
export function valuesOfKinds(context: CompileContext): readonly number[] {
  const actors = context.entries<ActorEntry>('actors');
  const thresholds = new Map(context.entries<AttributeEntry>('attributes').map(({ id, thresholds: list }) => [id, list.length]));
  const values = actors.map(({ attributes }) => attributes.reduce((sum, { attribute }) => sum + 1 + (thresholds.get(attribute) ?? 0), 0));
  const places = new Map(actors.map(({ id }, i) => [id, values[i]]));
  const placed = placements(context, 'actor').reduce((sum, { thing }) => sum + (places.get(thing.actor) ?? 0), 0);
  if (placed > MOST_VALUES)
    context.problem(
      ['arena', 'placed'],
      `The actors here have ${placed} values and thresholds together, and an arena holds ${MOST_VALUES}: place fewer, or give them fewer attributes.`,
    );
  return values;
}

/** Whether an arena has room for another actor of a kind. */
export function isRoomForOne(world: World, values: readonly number[], type: number): boolean {
  const { actors } = world;
  if (actors.count >= MOST_ACTORS) return false;
  const types = actors.cells.type;
  let sum = values[type];
  for (const row of actors.rows()) sum += values[types[row]];
  return sum <= MOST_VALUES;
}
