import { z } from 'zod';
import { causeSchema } from '../../replication/history.js';
import { actorInRow, defineQuestion } from '../../replication/question.js';
import { causesOf, whyAll, whySchema } from './why.js';

/** Why an actor's values are what they are, and what last changed one of them; only for who may see the truth. */
export const whyQuestion = defineQuestion({
  name: 'why',
  asks: z.strictObject({ t: z.literal('why'), row: z.int().min(0), attribute: z.string().max(48) }),
  /** For the attribute that is asked about, what last changed it, each with what led to it. */
  answers: z.strictObject({
    t: z.literal('why'),
    row: z.int(),
    tick: z.int(),
    attribute: z.string(),
    values: z.array(whySchema),
    causes: z.array(z.array(causeSchema)),
  }),
  answer: ({ world, history, viewer }, { row, attribute }) => {
    if (viewer !== 'truth') return { refused: 'Only who watches the truth may ask why.' };
    const actor = actorInRow(world, row);
    const causes = causesOf(history, world.rules, actor, attribute).map((chain) => [...chain]);
    return { t: 'why' as const, row, tick: world.tick, attribute, values: actor === 0 ? [] : [...whyAll(world, actor)], causes };
  },
});
