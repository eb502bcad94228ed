import { z } from 'zod';
import { defineConcept } from '../../world/concept.js';
import { removeOwned } from '../../world/saved.js';
import { ACTORS } from '../../world/actors.js';
import { KINDS, schema, type ActorEntry } from './schema.js';
import { actors } from './state.js';
import { allActors, rows, teamOf } from './system.js';
import { events } from './events.js';
import { findings } from './findings.js';

export { actors } from './state.js';
export { WHO, type Who } from './relations.js';
export { KINDS, type ActorEntry } from './schema.js';
export { playerKinds, actorCalled, allActors, countsForWhom, teamOf, counts, typeOf, spawnActor, removeActor } from './system.js';

/** Actors: everything that has attributes, a place and a name. The owners of all owned rows. */
export const actorsConcept = defineConcept(actors, {
  vocabulary: () => ({
    words: {
      ...Object.fromEntries(KINDS.map((kind) => [kind, 'It is a kind of actor. Ask for what only such actors have, as in suit > 0.'])),
      is: 'Ask for what only such actors have, as in suit > 0.',
    },
  }),
  findings,
  alsoCalled: { parts: { enemies: ['actors'] } },
  sections: {
    actors: {
      kind: 'chapter',
      title: 'Actors',
      entry: schema,
      absent: 'The arena does not place it, no spawner makes it and no action brings it in.',
      comesByItself: ({ kind }) => kind === 'player',
    },
  },
  compile: (context) => {
    const types = context.entries<ActorEntry>('actors');
    types.forEach((type, i) => {
      const names = type.attributes.map((a) => a.attribute);
      names.forEach((name, k) => {
        if (names.indexOf(name) < k) context.problem(['actors', i, 'attributes', k], `${type.label} has ${name} already.`);
      });
      for (const [field, id] of [
        ['speed', type.speed],
        ['radius', type.radius],
      ] as const)
        if (typeof id === 'string' && !names.includes(id))
          context.problem(['actors', i, field], `${type.label} does not have ${id}: add it to its attributes.`);
    });
    return types;
  },
  tables: () => [
    {
      name: ACTORS,
      columns: [
        { name: 'type', kind: 'entry', chapter: 'actors', see: 'everyone' },
        { name: 'team', kind: 'entry', chapter: 'teams', see: 'everyone', optional: true },
        { name: 'name', kind: 'text', see: 'everyone' },
      ],
    },
  ],
  attach: (world, types) => ({ table: world.actors, types }),
  events,
  selectors: {
    everyone: {
      sentence: 'everyone',
      schema: z.literal('everyone'),
      matches: (to) => to === 'everyone',
      select: () => (world) => allActors(world),
    },
    team: {
      sentence: 'the crew',
      schema: z.literal('team'),
      matches: (to) => to === 'team',
      select: () => (world, parties) => teamOf(world, parties.owner),
    },
  },
  lifecycle: {
    rulesAdopted: (world, before) => {
      const gone = [...rows(before)].map((row) => before.actors.handle(row)).filter((actor) => world.actors.rowOf(actor) < 0);
      for (const actor of gone) removeOwned(world, actor);
    },
  },
  workbench: async () => (await import('../workbenches.js')).actors,
  display: (types) =>
    types.map(({ id, label, kind, radius, speed }) => ({ id, label, kind, radius, ...(speed !== undefined && { speed }) })),
});
