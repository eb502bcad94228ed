import type { ActionSpec } from '../../world/concept.js';
import { bringIn } from './population.js';
import { comeBack, defeat } from './system.js';
import { finite, reference } from '../../ruleset/fields.js';
import { placeOf } from '../movement/index.js';

export const actions: Readonly<Record<string, ActionSpec>> = {
  fell: {
    label: 'fell at once',
    sentence: 'fell {to} at once',
    causes: () => [{ event: 'actorDefeated' }],
    args: {},
    compile: () => (world, actor, parties) => defeat(world, actor, parties.source === actor ? 0 : parties.source),
  },
  summon: {
    label: 'bring an actor in',
    sentence: 'bring {actor} in at {to}',
    causes: () => [{ event: 'actorSpawned' }, { event: 'arenaFull' }],
    places: true,
    args: {
      actor: reference('actors', ['foe', 'character', 'prop']),
      x: finite().optional(),
      y: finite().optional(),
      /** The team that it is on; none where nothing is said. */
      team: reference('teams').optional(),
    },
    compile: (args, context) => {
      const type = context.index('actors', String(args['actor']));
      const team = args['team'] === undefined ? -1 : context.index('teams', String(args['team']));
      return (world, actor) => {
        const here = placeOf(world, world.actors.rowOf(actor));
        bringIn(world, type, team, { x: Number(args['x'] ?? here.x), y: Number(args['y'] ?? here.y) });
      };
    },
  },
  revive: {
    label: 'bring back at once',
    sentence: 'bring {to} back at once',
    causes: () => [{ event: 'actorReturned' }],
    args: {},
    compile: () => comeBack,
  },
};
