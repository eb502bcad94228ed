import { Router } from 'express';
import { z } from 'zod';
import { PLAYERS, Room } from '../database/models.js';
import type { RoomKeeper } from '../rooms/keeper.js';
import { SEAT_NAMES } from '../rooms/names.js';
import { describeRoom, SeatLinks, seatOfLink } from '../rooms/seat-links.js';
import { pageOf } from './pages.js';
import { HttpProblem } from './problems.js';
import { Missing } from '../errors.js';
import type { Trail } from '../trail/trail.js';
import { findHead } from '../database/rulesets.js';
import { userOf } from './sessions.js';

export const createRoomSchema = z.strictObject({
  ruleset: z.uuid('The id of a ruleset is expected.'),
  /** How many can play. */
  seats: z.int('A room has 1 to 4 seats.').min(1, 'A room has 1 to 4 seats.').max(4, 'A room has 1 to 4 seats.').default(2),
  /** The seats whose players come as a party: they go into one crew, while there is room. */
  party: z
    .array(z.enum(SEAT_NAMES, `Seats are called ${SEAT_NAMES.join(', ')}.`))
    .max(4, 'A party has at most 4 players.')
    .default([]),
  /** Guests begin with the room and end with it; saved players begin with what they have kept, and keep what they get. */
  players: z.enum(PLAYERS, 'Players are guests, or saved ones.').default('guests'),
});

/** Rooms for who is signed in. */
export function roomRoutes(keeper: RoomKeeper, trail: Trail): Router {
  const router = Router();
  const links = new SeatLinks(keeper);

  router.post('/', async (request, response) => {
    const body = createRoomSchema.safeParse(request.body);
    if (!body.success) throw new HttpProblem(400, 'A ruleset and a number of seats are expected', body.error.issues[0].message);
    const ruleset = await findHead(body.data.ruleset);
    const { ruleset: _, ...wanted } = body.data;
    const room = await keeper.create(ruleset, wanted);
    trail.note({ who: userOf(response), ruleset: ruleset.id, what: 'roomOpened', about: { room: room.id } });
    response
      .status(201)
      .location(`/api/rooms/${room.id}`)
      .json(await describeRoom(room.id));
  });

  router.get('/', async (request, response) => {
    const ruleset = z.uuid().safeParse(request.query['ruleset']);
    if (!ruleset.success) throw new HttpProblem(400, 'The id of a ruleset is expected', 'Ask for /api/rooms?ruleset=…');
    const { rows, next } = await pageOf(
      Room,
      request,
      { by: 'createdAt', then: 'id', descending: true },
      { where: { rulesetId: ruleset.data } },
    );
    response.json({ rooms: rows.map(({ id, createdAt, players }) => ({ id, createdAt, players, open: keeper.isAwake(id) })), next });
  });

  router.get('/:id', async (request, response) => {
    const room = await describeRoom(request.params.id);
    if (!room) throw new Missing('room');
    response.json(room);
  });

  router.delete('/:id', async (request, response) => {
    const { id, rulesetId } = await links.closeRoom(request.params.id);
    trail.note({ who: userOf(response), ruleset: rulesetId, what: 'roomClosed', about: { room: id } });
    response.status(204).end();
  });

  router.post('/:id/seats/:seat/link', async (request, response) => {
    const { id: room, seat } = request.params;
    const { ruleset, ...link } = await links.renew(room, seat);
    trail.note({ who: userOf(response), ruleset, what: 'linkReplaced', about: { room, seat } });
    response.json(link);
  });

  router.delete('/:id/seats/:seat/link', async (request, response) => {
    const { id: room, seat } = request.params;
    const { ruleset, ...link } = await links.end(room, seat);
    trail.note({ who: userOf(response), ruleset, what: 'linkEnded', about: { room, seat } });
    response.json(link);
  });

  return router;
}

/** What a join link opens, for who has it; no session needed. */
export function joinRoutes(): Router {
  const router = Router();
  router.get('/:token', async (request, response) => {
    const seat = await seatOfLink(request.params.token);
    if (!seat) throw new HttpProblem(404, 'This link opens no seat any more', 'Ask for a new join link.');
    response.json({ room: seat.roomId, seat: seat.name });
  });
  return router;
}
