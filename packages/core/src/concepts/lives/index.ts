import { z } from 'zod';
import type { Then } from '../../ruleset/registry.js';
import { defineConcept } from '../../world/concept.js';
import { World } from '../../world/world.js';
import { type ActorEntry } from '../actors/index.js';
import { poolsRest, restPools } from '../attributes/index.js';
import { isDown } from '../states/index.js';
import { Names } from './names.js';
import { valuesOfKinds } from './capacity.js';
import { compilePlaced, followPopulation, populate } from './population.js';
import { events } from './events.js';
import { livesTable, harmTable } from './tables.js';
import { type Life, lives } from './state.js';
import { RowsOfKinds } from '../../world/rows-of-kinds.js';
import { fellEmpty, helpersOf, noteHarm, returnAll } from './system.js';
import { findings } from './findings.js';
import { actions } from './actions.js';
import { commands } from './commands.js';

export { lives } from './state.js';
export { bringIn } from './population.js';
export { MOST_ACTORS, MOST_VALUES } from './capacity.js';
export { withoutFalls, settleAt, homeOf, harmShares } from './system.js';

/** Lives: who falls when a pool is empty, who did it and who helped, and how it comes back. */
export const livesConcept = defineConcept(lives, {
  findings,
  alsoCalled: {
    names: { kill: ['fell', 'actorDefeated'], killed: ['actorDefeated'], died: ['actorDefeated'], death: ['actorDefeated'] },
    parts: { health: ['life'] },
  },
  *compileInParts(context) {
    const list = yield* context.each('lives', context.entries<ActorEntry>('actors'), (entry, i): Life => {
      const list = (field: 'onSpawn' | 'onDefeat') => {
        const actions = entry[field] as Then | undefined;
        return actions === undefined || actions.length === 0 ? undefined : context.then(actions, ['actors', i, field]);
      };
      if (entry.life !== undefined) {
        const target = context.fields<{ label: string; kind: string }, 'label' | 'kind'>('attributes', entry.life, 'label', 'kind');
        if (target && target.kind !== 'pool')
          context.problem(['actors', i, 'life'], `${target.label} is not a pool: nobody falls at its bottom.`);
        if (!entry.attributes.some(({ attribute }) => attribute === entry.life))
          context.problem(['actors', i, 'life'], `${entry.label} does not have ${entry.life}: add it to its attributes.`);
      }
      return {
        pool: entry.life === undefined ? -1 : context.index('attributes', entry.life),
        onSpawn: list('onSpawn'),
        onDefeat: list('onDefeat'),
        after: entry.respawn === undefined ? 0 : Math.max(1, context.ticks(entry.respawn.after)),
        atStart: entry.respawn?.at !== 'place',
        goes: entry.respawn === undefined && entry.kind !== 'player',
      };
    });
    return { placed: compilePlaced(context), values: valuesOfKinds(context), list };
  },
  tables: () => [livesTable, harmTable],
  attach: (world, compiled) => ({
    ...compiled,
    table: livesTable.in(world),
    harm: harmTable.in(world),
    names: new Names(),
    mortal: new RowsOfKinds(compiled.list.map(({ pool }) => pool >= 0)),
  }),
  events,
  commands,
  selectors: {
    helpers: {
      sentence: 'those who helped',
      schema: z.literal('helpers'),
      matches: (to) => to === 'helpers',
      select:
        () =>
        (world, { owner, source }) =>
          helpersOf(world, owner, source),
    },
  },
  actions,
  lifecycle: {
    worldStarted: populate,
    rulesAdopted: followPopulation,
    actorSpawned: (world, row) => {
      const life = lives.in(world).list[world.actors.cells.type[row]];
      life.onSpawn?.(world, World.alone(world.actors.handle(row)));
    },
    poolEmptied: (world, row, pool, cause) => {
      const { list, table } = lives.in(world);
      const actor = world.actors.handle(row);
      if (list[world.actors.cells.type[row]].pool !== pool || isDown(world, row) || poolsRest(world, row)) return;
      restPools(world, actor, true);
      table.cells.emptied[row] = cause;
    },
    poolRaised: (world, row, pool) => {
      if (lives.in(world).list[world.actors.cells.type[row]].pool === pool) restPools(world, world.actors.handle(row), false);
    },
  },
  onAnnounce: (world, event) => {
    if (event.name === 'actorLeft') lives.in(world).names.leave(world, String(event.data['name']));
    else noteHarm(world, event);
  },
  systems: { timers: returnAll, thresholds: fellEmpty },
});
