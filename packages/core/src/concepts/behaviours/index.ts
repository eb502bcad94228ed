import { defineConcept } from '../../world/concept.js';
import { RowsOfKinds } from '../../world/rows-of-kinds.js';
import { type ActorEntry } from '../actors/index.js';
import { findings } from './findings.js';
import { mindsTable } from './tables.js';
import { behaviours } from './state.js';
import { compileMind } from './compile.js';
import { abilitiesOfKinds, thinkAll, thinkingTicks } from './system.js';

export { behaviours } from './state.js';
export { BEHAVIOURS, type BehaviourEntry } from './schema.js';

/** Behaviours: what actors do that nobody drives. */
export const behavioursConcept = defineConcept(behaviours, {
  compileInParts: (context) => context.each('minds', context.entries<ActorEntry>('actors'), (entry, i) => compileMind(context, entry, i)),
  findings,
  tables: () => [mindsTable],
  attach: (world, list) => ({
    list,
    owned: abilitiesOfKinds(world.rules),
    table: mindsTable.in(world),
    minded: new RowsOfKinds(list.map(({ behaviour }) => behaviour !== undefined)),
  }),
  lifecycle: {
    actorSpawned: (world, row) => {
      const { table } = behaviours.in(world);
      // Those who appear together do not think together, so that no tick has all the work. Who is first is luck.
      table.cells.thinks[row] = world.tick + 1 + Math.floor(world.turns.of(world.actors.handle(row)) * thinkingTicks(world));
      table.cells.step[row] = 1;
    },
  },
  systems: { timers: thinkAll },
});
