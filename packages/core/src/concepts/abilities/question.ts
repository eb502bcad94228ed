import { z } from 'zod';
import { actorInRow, defineQuestion } from '../../replication/question.js';
import { abilitiesNow, abilityNow } from './now.js';

/** The abilities of an actor with today's numbers: its own player's, or of any for who may see the truth. */
export const abilitiesQuestion = defineQuestion({
  name: 'abilities',
  asks: z.strictObject({ t: z.literal('abilities'), row: z.int().min(0) }),
  answers: z.strictObject({ t: z.literal('abilities'), row: z.int(), tick: z.int(), items: z.array(abilityNow) }),
  answer: ({ world, viewer }, { row }) => {
    const actor = actorInRow(world, row);
    if (viewer !== 'truth' && viewer.actor !== actor) return { refused: 'A seat may ask for its own abilities only.' };
    return { t: 'abilities' as const, row, tick: world.tick, items: [...abilitiesNow(world, actor, viewer)] };
  },
});
