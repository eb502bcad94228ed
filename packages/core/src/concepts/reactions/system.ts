import type { CompileContext } from '../../ruleset/context.js';
import type { GameEvent } from '../../world/events.js';
import type { World } from '../../world/world.js';
import { allActors } from '../actors/index.js';
import { instancesOf } from '../effects/index.js';
import { EVERYBODY, nameNumber, recall, remember } from '../memory/index.js';
import { type OwnReaction } from './schema.js';
import { type Reaction } from './state.js';
import { compileReaction } from './compile.js';

/** Those that stand inside the entries of a chapter. */
export function* inside(context: CompileContext, chapter: 'actors' | 'effects'): Generator<void, readonly Reaction[]> {
  const entries = context.entries<{ reactions?: readonly OwnReaction[] }>(chapter);
  const reactions = yield* context.each('reactions', entries, ({ reactions: own = [] }, index) =>
    own.map((one, k) => compileReaction(context, one, [chapter, index, 'reactions', k], { of: chapter, index })),
  );
  return reactions.flat();
}

/** Whom an event has react: the one it is about, or those who bear the reaction and play the part that it says. */
export function ownersOf(world: World, event: GameEvent, { bearer, who }: Reaction): readonly number[] {
  if (bearer.of === 'all') return [event.subject];
  const bears = (actor: number) => {
    const row = world.actors.rowOf(actor);
    if (row < 0) return false;
    return bearer.of === 'actors' ? world.actors.cells.type[row] === bearer.index : instancesOf(world, actor, bearer.index).length > 0;
  };
  return (who === 'anyone' ? allActors(world) : [event[who]]).filter(bears);
}

export function react(world: World, event: GameEvent, reaction: Reaction, owner: number): void {
  const { pattern: waits, then, purpose, times, ticks, perActor, bearer, rule } = reaction;
  const { subject, source, target } = event;
  if (!world.spend(1, rule)) return;
  if (!waits.matches(world, event, owner)) return;
  if (times > 0) {
    // What somebody bears counts for them alone.
    const alone = (perActor || bearer.of !== 'all') && world.actors.rowOf(owner) >= 0;
    const who = alone ? nameNumber(world, owner) : EVERYBODY;
    if ((recall(world, who, purpose)?.count ?? 0) >= times) return;
    remember(world, who, purpose, 0, ticks);
  }
  then(world, { owner, source, target, subject });
}
