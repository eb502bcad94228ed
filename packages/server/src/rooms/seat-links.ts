import { randomBytes } from 'node:crypto';
import { Op } from 'sequelize';
import { type Players, Room as RoomRow, Seat } from '../database/models.js';
import { Missing } from '../errors.js';
import type { RoomKeeper } from './keeper.js';
import { SEAT_NAMES } from './names.js';

/** How long a join link opens its seat, unless it is renewed or ended before. */
const LASTS_MS = 30 * 24 * 3600 * 1000;

/** A link for a seat, as it is kept. */
export const newLink = () => ({ token: randomBytes(18).toString('base64url'), linkUntil: new Date(Date.now() + LASTS_MS) });

/** The seat that a link opens today; null where it opens none, or none any more. */
export function seatOfLink(token: string, roomId?: string): Promise<Seat | null> {
  return Seat.findOne({ where: { token, linkUntil: { [Op.gt]: new Date() }, ...(roomId !== undefined && { roomId }) } });
}

/** A room as the workbench is told of it. */
export interface RoomDescription {
  readonly id: string;
  readonly ruleset: string;
  readonly seed: number;
  readonly createdAt: Date;
  readonly players: Players;
  readonly seats: readonly SeatDescription[];
}

/** `join` is the path of the seat's join link, null where it has none any more. */
export interface SeatDescription {
  readonly name: string;
  readonly team: string | null;
  readonly party: string | null;
  readonly join: string | null;
  readonly until: Date | null;
}

function described({ name, team, party, token, linkUntil }: Seat): SeatDescription {
  const open = token !== null && linkUntil !== null && linkUntil > new Date();
  return { name, team, party: party ?? null, join: open ? `/join/${token}` : null, until: open ? linkUntil : null };
}

/** The seats of a room, in the order in which they are always named. */
export async function seatsOf(roomId: string): Promise<readonly Seat[]> {
  return (await Seat.findAll({ where: { roomId } })).sort((a, b) => SEAT_NAMES.indexOf(a.name) - SEAT_NAMES.indexOf(b.name));
}

/** What the workbench shows of a room, with the join links of its seats. */
export async function describeRoom(id: string): Promise<RoomDescription | undefined> {
  const row = await RoomRow.findByPk(id);
  if (!row) return undefined;
  return {
    id,
    ruleset: row.rulesetId,
    seed: row.seed,
    createdAt: row.createdAt,
    players: row.players,
    seats: (await seatsOf(id)).map(described),
  };
}

/** A seat whose link has changed, and the ruleset that its room plays. */
export interface ChangedSeat extends SeatDescription {
  readonly ruleset: string;
}

/** The join links of seats: they belong to their room and end with it, and can be renewed and ended before. */
export class SeatLinks {
  constructor(private readonly keeper: RoomKeeper) {}

  /** Gives a seat a new link. Who came by the old one has to go, and the old one opens nothing any more. */
  renew(room: string, seat: string): Promise<ChangedSeat> {
    return this.change(room, seat, newLink(), 'This join link was replaced by a new one. Ask for the new link.');
  }

  /** Ends the link of a seat: it opens nothing any more, and who came by it has to go. */
  end(room: string, seat: string): Promise<ChangedSeat> {
    return this.change(room, seat, { token: null, linkUntil: null }, 'This join link was ended.');
  }

  private async change(
    id: string,
    name: string,
    link: { token: string | null; linkUntil: Date | null },
    words: string,
  ): Promise<ChangedSeat> {
    const [room, seat] = await Promise.all([RoomRow.findByPk(id), Seat.findOne({ where: { roomId: id, name } })]);
    if (!room || !seat) throw new Missing('seat');
    const { token: before } = seat;
    await seat.update(link);
    if (before !== null) this.keeper.dismiss(id, before, { message: words, how: 'final' });
    return { ...described(seat), ruleset: room.rulesetId };
  }

  /** Closes a room for good: its links end with it, and what its guests have; what saved players have stays. */
  async closeRoom(id: string): Promise<RoomRow> {
    const row = await RoomRow.findByPk(id);
    if (!row) throw new Missing('room');
    const message = row.players === 'saved' ? 'This room was closed. What its players have is kept.' : 'This room was closed.';
    const gone = await this.keeper.asleep(row, { message, how: 'final' }, () => RoomRow.destroy({ where: { id } }));
    if (gone === 0) throw new Missing('room');
    return row;
  }
}
