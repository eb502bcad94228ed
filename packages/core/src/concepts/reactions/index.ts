import type { CompileContext } from '../../ruleset/context.js';
import { grouped } from '../../ruleset/grouped.js';
import type { Path } from '../../ruleset/problem.js';
import type { Pattern, Then } from '../../ruleset/registry.js';
import { defineConcept } from '../../world/concept.js';
import type { GameEvent } from '../../world/events.js';
import type { World } from '../../world/world.js';
import { allActors } from '../actors/index.js';
import { instancesOf } from '../effects/index.js';
import { EVERYBODY, nameNumber, recall, remember } from '../memory/index.js';
import { findings } from './findings.js';
import { type OwnReaction, type ReactionEntry, schema } from './schema.js';
import { type Bearer, type Reaction, reactions } from './state.js';

export { reactions } from './state.js';
export type { ReactionEntry } from './schema.js';

function compileReaction(context: CompileContext, { on, then, atMost: most }: OwnReaction, path: Path, bearer: Bearer): Reaction {
  const { who = 'subject' } = on as Pattern;
  return {
    bearer,
    // Whoever the event is about is the one that the actions of the ruleset's own call self.
    pattern: context.pattern(bearer.of === 'all' ? { ...(on as Pattern), who: 'anyone' } : (on as Pattern)),
    who,
    then: context.then(then as Then, [...path, 'then']),
    purpose: context.purpose(path),
    rule: context.ruleAt(path),
    times: most?.times ?? 0,
    ticks: most?.every === undefined ? 0 : context.ticks(most.every),
    perActor: most?.per === 'actor',
  };
}

/** Those that stand inside the entries of a chapter. */
const inside = (context: CompileContext, chapter: 'actors' | 'effects'): readonly Reaction[] =>
  context
    .entries<{ reactions?: readonly OwnReaction[] }>(chapter)
    .flatMap(({ reactions: own = [] }, index) =>
      own.map((one, k) => compileReaction(context, one, [chapter, index, 'reactions', k], { of: chapter, index })),
    );

/** Reactions: when an event that matches happens, then actions; for the whole ruleset, or for who is or has something. */
export const reactionsConcept = defineConcept(reactions, {
  sections: { reactions: { kind: 'chapter', title: 'Reactions', entry: schema } },
  compile: (context) => {
    const entries = context.entries<ReactionEntry>('reactions');
    entries.forEach(({ on }, i) => {
      const { who } = on as Pattern;
      if (who !== undefined && who !== 'anyone')
        context.problem(['reactions', i, 'on', 'who'], 'A reaction of the ruleset hears of everybody: leave out who has to be what.');
    });
    const list = [
      ...entries.map((entry, i) => compileReaction(context, entry, ['reactions', i], { of: 'all' })),
      ...inside(context, 'actors'),
      ...inside(context, 'effects'),
    ];
    return { list, on: grouped(list, ({ pattern }) => pattern.event) };
  },
  findings,
  hears: (world, event) => {
    for (const reaction of reactions.of(world.rules).on.get(event.name) ?? [])
      for (const owner of ownersOf(world, event, reaction)) react(world, event, reaction, owner);
  },
});

/** Whom an event has react: the one it is about, or those who bear the reaction and play the part that it says. */
function ownersOf(world: World, event: GameEvent, { bearer, who }: Reaction): readonly number[] {
  if (bearer.of === 'all') return [event.subject];
  const bears = (actor: number) => {
    const row = world.actors.rowOf(actor);
    if (row < 0) return false;
    return bearer.of === 'actors' ? world.actors.cells.type[row] === bearer.index : instancesOf(world, actor, bearer.index).length > 0;
  };
  return (who === 'anyone' ? allActors(world) : [event[who]]).filter(bears);
}

function react(world: World, event: GameEvent, reaction: Reaction, owner: number): void {
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
