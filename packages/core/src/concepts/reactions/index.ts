import { grouped } from '../../ruleset/grouped.js';
import type { Pattern } from '../../ruleset/registry.js';
import { defineConcept } from '../../world/concept.js';
import { findings } from './findings.js';
import { type ReactionEntry, schema } from './schema.js';
import { reactions } from './state.js';
import { compileReaction } from './compile.js';
import { inside, ownersOf, react } from './system.js';

export { reactions } from './state.js';
export type { ReactionEntry } from './schema.js';

/** Reactions: when an event that matches happens, then actions; for the whole ruleset, or for who is or has something. */
export const reactionsConcept = defineConcept(reactions, {
  sections: {
    reactions: {
      kind: 'chapter',
      title: 'Reactions',
      entry: schema,
      absent: 'The event that it waits for never happens.',
      followsEvents: true,
    },
  },
  *compileInParts(context) {
    const entries = context.entries<ReactionEntry>('reactions');
    entries.forEach(({ on }, i) => {
      const { who } = on as Pattern;
      if (who !== undefined && who !== 'anyone')
        context.problem(['reactions', i, 'on', 'who'], 'A reaction of the ruleset hears of everybody: leave out who has to be what.');
    });
    const list = [
      ...(yield* context.each('reactions', entries, (entry, i) => compileReaction(context, entry, ['reactions', i], { of: 'all' }))),
      ...(yield* inside(context, 'actors')),
      ...(yield* inside(context, 'effects')),
    ];
    return { list, on: grouped(list, ({ pattern }) => pattern.event) };
  },
  findings,
  onEvent: (world, event) => {
    for (const reaction of reactions.of(world.rules).on.get(event.name) ?? [])
      for (const owner of ownersOf(world, event, reaction)) react(world, event, reaction, owner);
  },
  workbench: async () => (await import('../workbenches.js')).reactions,
});
