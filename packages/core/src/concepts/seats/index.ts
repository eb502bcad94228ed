import { z } from 'zod';
import { checkAction, checkInput } from '../../ruleset/requests.js';
import { command, defineConcept } from '../../world/concept.js';
import { savedPlayer } from '../../world/saved.js';
import { seatsTable } from './tables.js';
import { seats } from './state.js';
import { actorOfSeat, type InputRequest, join, leave, poke, type PokeArgs, runInput, seatName, within } from './system.js';
import { invariants } from './invariants.js';
import { events } from './events.js';

export { seats } from './state.js';
export { seatName, seatProblems, teamIds, type InputRequest, actorOfSeat } from './system.js';

/** Seats: whose inputs drive which actor. Commands from outside come through here. */
export const seatsConcept = defineConcept(seats, {
  alsoCalled: { names: { joined: ['seatTaken'] } },
  tables: () => [seatsTable],
  attach: (world) => ({ table: seatsTable.in(world) }),
  events,
  invariants,
  commands: {
    join: command({
      args: {
        seat: seatName(),
        team: z.string().optional(),
        party: z.string().max(48).optional(),
        actor: z.string().optional(),
        saved: savedPlayer.optional(),
      },
      run: (world, args) => join(world, args),
    }),
    leave: { args: { seat: seatName() }, run: (world, args) => leave(world, String(args['seat'])) },
    input: {
      args: { seat: seatName(), input: z.unknown().optional() },
      actor: (world, args) => actorOfSeat(world, String(args['seat'])),
      check: (_, { input }) => within('input', checkInput(input).problems),
      run: (world, args) => runInput(world, String(args['seat']), args['input'] as InputRequest),
    },
    poke: command({
      args: { seat: seatName().optional(), from: seatName().optional(), action: z.unknown().optional() },
      check: (rules, { action }) => within('action', checkAction(rules, action).problems),
      run: (world, args) => poke(world, { ...args, action: args.action as PokeArgs['action'] }),
    }),
  },
});
