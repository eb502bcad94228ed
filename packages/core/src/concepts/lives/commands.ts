import { z } from 'zod';
import { finite } from '../../ruleset/fields.js';
import { positionOf } from '../../ruleset/rules.js';
import { command, type CommandSpec } from '../../world/concept.js';
import { bringIn } from './population.js';

export const commands: Readonly<Record<string, CommandSpec>> = {
  /** Brings somebody in from outside, under a name of its own. */
  bring: command({
    args: {
      actor: z.string().max(48),
      name: z.string().min(1).max(80),
      team: z.string().max(48).optional(),
      x: finite(),
      y: finite(),
    },
    check: (rules, { actor }) =>
      rules.chapters.get('actors')?.find(String(actor)) ? [] : [{ path: '/actor', message: `No actor is called ${String(actor)}.` }],
    run: (world, { actor, name, team, x, y }) =>
      void bringIn(
        world,
        positionOf(world.rules, 'actors', actor),
        team === undefined ? -1 : positionOf(world.rules, 'teams', team),
        { x, y },
        { name },
      ),
  }),
};
