import type { GameEvent } from '../../world/events.js';
import type { World } from '../../world/world.js';
import { type Reason } from './schema.js';
import { endEffect, instancesOf } from './system.js';
import { effects } from './state.js';

/** Ends all that is on an actor. */
export function endEffectsOf(world: World, actor: number, reason: Reason): void {
  effects.in(world).table.eachOf(actor, (at) => endEffect(world, at, reason));
}

/** How many of an effect are on an actor: instances, each with its stacks. */
export function stacksOf(world: World, actor: number, index: number): number {
  const { of } = effects.in(world);
  return instancesOf(world, actor, index).reduce((sum, at) => sum + of.stacks[at], 0);
}

/** An event uses up what waits for it. What began with this event, or after it, is not used by it. */
export function useUp(world: World, event: GameEvent): void {
  const grip = effects.in(world);
  const kinds = grip.usedBy.get(event.name);
  if (!kinds) return;
  for (let at = 0; at < grip.table.high; at++) {
    if (grip.table.live[at] === 0 || !kinds.includes(grip.of.effect[at]) || grip.of.cause[at] >= event.serial) continue;
    const { usedBy } = grip.list[grip.of.effect[at]];
    if (grip.of.cause[at] === 0 || !usedBy!.matches(world, event, grip.of.actor[at])) continue;
    if (--grip.of.uses[at] <= 0) endEffect(world, at, 'used');
  }
}
