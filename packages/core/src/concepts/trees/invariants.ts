import type { Breach, Invariant } from '../../world/invariant.js';
import { savePlayer } from '../../world/saved.js';
import type { World } from '../../world/world.js';
import { typeOf } from '../actors/index.js';
import { events } from './events.js';
import { trees } from './state.js';
import { savedSpending } from './system.js';

const SPENDING = new Set([events.nodeLearned, events.nodeForgotten, events.pointsReturned, events.pointsGained].map(({ name }) => name));

/** The first player whose points are spent as no tree allows. */
function illegal(world: World): Breach | undefined {
  const { actors, rules } = world;
  for (let row = 0; row < actors.high; row++) {
    if (actors.live[row] === 0 || typeOf(world, row).kind !== 'player') continue;
    const [problem] = savedSpending(trees.of(rules), savePlayer(world, row), rules);
    if (problem) {
      const who = world.nameOf(actors.handle(row));
      return { who, says: `${who}: ${problem.message}` };
    }
  }
  return undefined;
}

export const invariants: Readonly<Record<string, Invariant>> = {
  legalTrees: {
    label: 'points are spent as the skill trees allow',
    watch: () => {
      let spent = true;
      return {
        onEvent: (_, { name }) => {
          spent ||= SPENDING.has(name);
          return undefined;
        },
        onTick: (world) => {
          if (!spent) return undefined;
          spent = false;
          return illegal(world);
        },
        atEnd: illegal,
      };
    },
  },
};
