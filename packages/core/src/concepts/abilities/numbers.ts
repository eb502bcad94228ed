import { toGrid } from '../../math/grid.js';
import { World } from '../../world/world.js';
import type { Ability } from './compile.js';
import type { AbilityNumbers } from './tooltip.js';

/** Today's numbers of an ability for an actor. */
export function numbersOf(world: World, ability: Ability, actor: number): AbilityNumbers {
  const parties = World.alone(actor);
  const round = (value: number) => toGrid(value);
  return {
    cast: round(ability.cast?.seconds(world, parties) ?? 0),
    cooldown: round(Math.max(0, ability.cooldown.run(world, parties))),
    recovery: round(ability.recovery?.seconds(world, parties) ?? 0),
    channel: round(ability.channel?.seconds(world, parties) ?? 0),
    range: round(ability.target.range?.run(world, parties) ?? 0),
    stored: ability.stored?.most ?? 0,
  };
}
