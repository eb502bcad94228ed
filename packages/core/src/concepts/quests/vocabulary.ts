import { type World } from '../../world/world.js';
import { quests } from './state.js';
import { ACTIVE, READY } from './tables.js';
/** What formulas ask of quests. */
export const vocabulary = (ids: (chapter: string) => readonly string[]) => {
  const about = (name: string, holds: (world: World, row: number, q: number) => boolean) => ({
    name,
    chapter: 'quests',
    ids: ids('quests'),
    amounts: 0,
    yields: 'condition' as const,
    noun: 'quest',
    read: (q: number) => (world: World, actor: number) => {
      const row = world.actors.rowOf(actor);
      return row >= 0 && holds(world, row, q) ? 1 : 0;
    },
  });
  return {
    functions: [
      about('done', (world, row, q) => quests.in(world).cells[q].times.data[row] > 0),
      about('onQuest', (world, row, q) => [ACTIVE, READY].includes(quests.in(world).cells[q].standing.data[row])),
    ],
  };
};
