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
  const state = effects.in(world);
  const kinds = state.usedBy.get(event.name);
  if (!kinds) return;
  for (let at = 0; at < state.table.high; at++) {
    if (state.table.live[at] === 0 || !kinds.includes(state.of.effect[at]) || state.of.cause[at] >= event.serial) continue;
    const { usedBy } = state.list[state.of.effect[at]];
    if (state.of.cause[at] === 0 || !usedBy!.matches(world, event, state.of.actor[at])) continue;
    if (--state.of.uses[at] <= 0) endEffect(world, at, 'used');
  }
}
