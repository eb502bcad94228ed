import { reference } from '../../ruleset/fields.js';
import { type ActionSpec } from '../../world/concept.js';
import type { World } from '../../world/world.js';
import { show } from './log.js';
import { quests } from './state.js';

/** An action on a quest. */
export function onQuest(
  spec: Pick<ActionSpec, 'label' | 'sentence'> & { readonly leads: readonly string[] },
  run: (world: World, actor: number, q: number, source: number) => void,
): ActionSpec {
  return {
    label: spec.label,
    sentence: spec.sentence,
    causes: ({ quest }) => spec.leads.map((event) => ({ event, fields: { quest } })),
    args: { quest: reference('quests') },
    compile: (args, context) => {
      const q = context.index('quests', String(args['quest']));
      return (world, actor, { source }) => run(world, actor, q, source);
    },
  };
}

export function showOne(world: World, row: number): void {
  quests.in(world).list.forEach((_, q) => show(world, row, q));
}
