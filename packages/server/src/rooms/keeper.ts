import { randomInt } from 'node:crypto';
import type { Operation } from 'fast-json-patch';
import type { Logger } from 'pino';
import type { Sequelize } from 'sequelize';
import { type Players, Room as RoomRow, Seat } from '../database/models.js';
import { Impossible, NotNow } from '../errors.js';
import type { DraftingDesk } from '../drafts/desk.js';
import { findHead, type RulesetHead } from '../database/rulesets.js';
import { AwakeRoom, type Measures } from './awake-room.js';
import { AwakeRooms } from './awake-rooms.js';
import { Edits } from './edits.js';
import { FIRST, SEAT_NAMES, SECOND } from './names.js';
import type { Client, Goodbye } from './client.js';
import { LoopTurns } from './loop-turns.js';
import { Room, type RoomRules } from './room.js';
import { RoomHold } from './room-hold.js';
import { keptOfGuests, keptOfPlayers } from './kept.js';
import { Leases } from './leases.js';
import { newLink, seatsOf } from './seat-links.js';
import { SharedRules } from './shared-rules.js';
import { machineTime, type Time } from './time.js';

/** What the party of a room is called. */
const PARTY = 'party';

/** What a room may be opened with. */
export interface NewRoom {
  /** One to four; 2 where nothing is said. */
  readonly seats?: number;
  readonly party?: readonly string[];
  /** Guests where nothing is said. */
  readonly players?: Players;
}

/** Keeps rooms: opens them when somebody comes, runs them while somebody is there, stores what players keep. */
export class RoomKeeper {
  private readonly awake = new AwakeRooms();
  /** Told of edits while they wake. */
  private readonly waking = new Set<(edited: RoomRules) => void>();
  /** Rooms are woken, and edits compiled, a part at a time: what a part takes on this thread, others wait for. */
  private readonly loop = new LoopTurns();
  private readonly rules = new SharedRules(this.loop);
  private readonly edits: Edits<RoomRules>;
  /** Which of them plays which players. */
  readonly leases = new Leases(this.awake);

  constructor(
    private readonly sequelize: Sequelize,
    private readonly desk: DraftingDesk,
    private readonly log: Logger,
    private readonly measures: Measures,
    private readonly time: Time = machineTime,
  ) {
    this.edits = new Edits((rulesetId) => this.awake.of(rulesetId).map(({ room }) => room), time);
  }

  /** A new room; the rules say which team each of its seats comes into, those of `party` into one while there is room. */
  async create(ruleset: RulesetHead, { seats: count = 2, party = [], players = 'guests' }: NewRoom = {}): Promise<RoomRow> {
    const problem = await this.desk.seats(ruleset);
    if (problem !== '') throw new Impossible('Nobody could take a seat', problem);
    return this.sequelize.transaction(async (transaction) => {
      const id = await this.freeName();
      const row = await RoomRow.create({ id, rulesetId: ruleset.id, seed: randomInt(1, 2 ** 31 - 1), players }, { transaction });
      const seats = SEAT_NAMES.slice(0, count).map((name) => ({
        roomId: id,
        name,
        team: null,
        party: party.includes(name) ? PARTY : null,
        ...newLink(),
      }));
      await Seat.bulkCreate(seats, { transaction });
      return row;
    });
  }

  private async freeName(): Promise<string> {
    for (let tries = 0; ; tries++) {
      const name = `${FIRST[randomInt(FIRST.length)]}-${SECOND[randomInt(SECOND.length)]}${tries < 4 ? '' : `-${randomInt(1000, 10_000)}`}`;
      if ((await RoomRow.count({ where: { id: name } })) === 0) return name;
    }
  }

  isAwake(id: string): boolean {
    return this.awake.get(id) !== undefined;
  }

  /**
   * Has a room sleep, with words to who is there, and does something with it then: nobody can wake it meanwhile.
   * @throws NotNow where it can't be stored as it stands
   */
  async asleep<T>(row: RoomRow, goodbye: Goodbye, work: () => Promise<T>): Promise<T> {
    return this.leases.inTurn(row.rulesetId, async () => {
      const ended = (await this.awake.get(row.id)?.end(goodbye)) ?? true;
      if (!ended) throw new NotNow('The room can’t be stored as it stands', 'Nothing was changed. Try again in a while.');
      return work();
    });
  }

  /** Has those who came by a link go. */
  dismiss(room: string, link: string, goodbye: Goodbye): void {
    this.awake.get(room)?.room.dismissAll(goodbye, (client) => client.link === link);
  }

  /**
   * Lets somebody into a room, which is woken where it sleeps; undefined where there is none of that name.
   * @throws PlayersElsewhere where another room that somebody looks at plays one of its players
   */
  async connect(id: string, client: Client): Promise<AwakeRoom | undefined> {
    const there = this.awake.get(id);
    if (there?.ready) {
      there.connect(client);
      return there;
    }
    const row = await RoomRow.findByPk(id);
    if (!row) return undefined;
    return this.leases.inTurn(row.rulesetId, async () => {
      const room = this.awake.get(id) ?? (await this.wake(row, client));
      room?.connect(client);
      return room;
    });
  }

  private async wake(row: RoomRow, client: Client): Promise<AwakeRoom | undefined> {
    const seats = await seatsOf(row.id);
    const names = seats.map(({ name }) => name);
    if (row.players === 'saved')
      await this.leases.free(row.rulesetId, names, client.link === undefined, `Room ${row.id} plays ${names.join(' and ')} now.`);
    let edited: RoomRules | undefined;
    const hear = (rules: RoomRules) => {
      if (rules.rulesetId === row.rulesetId && rules.revision > (edited?.revision ?? 0)) edited = rules;
    };
    this.waking.add(hear);
    try {
      const hold = await RoomHold.take(this.sequelize, this.log, row);
      if (!hold) return undefined;
      const { rulesetId } = row;
      const { rules, revision } = await this.rules.of(await findHead(rulesetId));
      const { world, guests } = await hold.read(rules, revision, (stored, earlier) => this.rules.earlier(rulesetId, stored, earlier));
      const { saved, unreadable } = hold.ofGuests
        ? await keptOfGuests(hold, rules, guests)
        : await keptOfPlayers(this.sequelize, rulesetId, rules, names);
      await this.loop.next();
      const room = new Room(row.id, { rules, rulesetId, revision }, row.seed, seats, saved, world, unreadable);
      if (edited) room.edited(edited);
      return new AwakeRoom(room, hold, {
        all: this.awake,
        time: this.time,
        measures: this.measures,
        log: this.log,
        forgotten: (forgotten) => void this.forget(forgotten),
      });
    } finally {
      this.waking.delete(hear);
    }
  }

  /** Has all that rooms of a ruleset have changed be stored, so that who reads it reads the latest. */
  async stored(rulesetId: string): Promise<void> {
    for (const room of this.awake.of(rulesetId)) await room.save();
  }

  /** A room that nobody has looked at for long sleeps, unless somebody has come meanwhile. */
  private forget(forgotten: AwakeRoom): Promise<void> {
    return this.leases.inTurn(forgotten.room.rulesetId, async () => {
      if (!forgotten.room.watched && this.awake.holds(forgotten)) await forgotten.end();
    });
  }

  /** Has rooms that are awake, or about to be, go by a patch of their ruleset, which led to its present revision. Where there are none nothing is compiled here. */
  async edited(ruleset: RulesetHead, patch: readonly Operation[]): Promise<void> {
    const rulesetId = ruleset.id;
    if (this.awake.of(rulesetId).length === 0 && this.waking.size === 0) return;
    const edited = { ...(await this.rules.edited(ruleset, patch)), rulesetId };
    this.edits.give(edited);
    for (const hear of this.waking) hear(edited);
  }

  get count(): number {
    return this.awake.size;
  }

  /** Tells everybody that the server stops, and stores all there is. */
  async close(): Promise<void> {
    const goodbye: Goodbye = { message: 'The server stops. Your seat is kept; come back when it runs again.', how: 'stopping' };
    await Promise.all([...this.awake].map((room) => room.end(goodbye)));
    // What can't be stored any more must not run on either.
    for (const room of this.awake) room.abandon(goodbye);
  }
}
