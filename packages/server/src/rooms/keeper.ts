import { randomInt } from 'node:crypto';
import { type Problem, readRulesetInParts, type Rules, type SavedPlayer, savedProblems } from '@eager-ember/core';
import type { Logger } from 'pino';
import type { Sequelize } from 'sequelize';
import { Player, type Players, Room as RoomRow, type Ruleset, Seat, SetAside } from '../database/models.js';
import { HttpProblem } from '../http/problems.js';
import type { DraftingDesk } from '../drafts/desk.js';
import { findRuleset } from '../http/found.js';
import { AwakeRoom, type Measures } from './awake-room.js';
import { AwakeRooms } from './awake-rooms.js';
import { FIRST, SEAT_NAMES, SECOND } from './names.js';
import type { Client, Goodbye } from './client.js';
import { LoopTurns } from './loop-turns.js';
import { Room, type RoomRules } from './room.js';
import type { Unreadable } from './unreadable.js';
import { RoomHold } from './room-hold.js';
import { newLink, seatsOf } from './seat-links.js';
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

/** Players are with another room: two rooms cannot play the same player at once. */
export class PlayersElsewhere extends Error {
  constructor(
    readonly names: readonly string[],
    readonly room: string,
  ) {
    super(
      `${names.join(' and ')} ${names.length === 1 ? 'plays' : 'play'} in room ${room} just now, and nobody plays in two rooms at once. Leave that room first.`,
    );
  }
}

/** What is kept of a room's players. */
interface Kept {
  readonly saved: ReadonlyMap<string, SavedPlayer>;
  readonly unreadable: readonly Unreadable[];
}

const reasonOf = ({ path, message }: Problem): string => `${path || 'the whole'}: ${message}`;

/** Keeps rooms: opens them when somebody comes, runs them while somebody is there, stores what players keep. */
export class RoomKeeper {
  private readonly awake = new AwakeRooms();
  /** Told of edits while they wake. */
  private readonly waking = new Set<(edited: RoomRules) => void>();
  /** Rooms are woken, and edits compiled, a part at a time: what a part takes on this thread, others wait for. */
  private readonly loop = new LoopTurns();
  private readonly turns = new Map<string, Promise<void>>();

  constructor(
    private readonly sequelize: Sequelize,
    private readonly desk: DraftingDesk,
    private readonly log: Logger,
    private readonly measures: Measures,
    private readonly time: Time = machineTime,
  ) {}

  /** A new room; the rules say which team each of its seats comes into, those of `party` into one while there is room. */
  async create(ruleset: Ruleset, { seats: count = 2, party = [], players = 'guests' }: NewRoom = {}): Promise<RoomRow> {
    const problem = await this.desk.seats(ruleset.document);
    if (problem !== '') throw new HttpProblem(422, 'Nobody could take a seat', problem);
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
   * @throws HttpProblem 503 where it can't be stored as it stands
   */
  async asleep<T>(row: RoomRow, goodbye: Goodbye, work: () => Promise<T>): Promise<T> {
    return this.inTurn(row.rulesetId, async () => {
      const ended = (await this.awake.get(row.id)?.end(goodbye)) ?? true;
      if (!ended) throw new HttpProblem(503, 'The room can’t be stored as it stands', 'Nothing was changed. Try again in a while.');
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
    return this.inTurn(row.rulesetId, async () => {
      const room = this.awake.get(id) ?? (await this.wake(row, client));
      room?.connect(client);
      return room;
    });
  }

  private async wake(row: RoomRow, client: Client): Promise<AwakeRoom | undefined> {
    const seats = await seatsOf(row.id);
    const names = seats.map(({ name }) => name);
    if (row.players === 'saved')
      await this.freePlayers(row.rulesetId, names, client.link === undefined, `Room ${row.id} plays ${names.join(' and ')} now.`);
    let edited: RoomRules | undefined;
    const hear = (rules: RoomRules) => {
      if (rules.rulesetId === row.rulesetId && rules.revision > (edited?.revision ?? 0)) edited = rules;
    };
    this.waking.add(hear);
    try {
      const hold = await RoomHold.take(this.sequelize, this.log, row);
      if (!hold) return undefined;
      const { id: rulesetId, document, revision } = await findRuleset(row.rulesetId);
      const rules = await this.rulesOf(document);
      const { world, guests } = await hold.read(rules, revision, (earlier) => this.rulesOf(earlier));
      const { saved, unreadable } = hold.ofGuests
        ? await this.guestsOf(hold, rules, guests)
        : await this.playersOf(rulesetId, rules, names);
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

  /** What guests of a room keep. What can't be read is set aside untouched, and said; its guest begins anew. */
  private async guestsOf(hold: RoomHold, rules: Rules, guests: ReadonlyMap<string, SavedPlayer>): Promise<Kept> {
    const { rulesetId, room } = hold;
    const saved = new Map<string, SavedPlayer>();
    const unreadable: Unreadable[] = [];
    for (const [name, kept] of guests) {
      const [problem] = savedProblems(rules, kept);
      if (!problem) {
        saved.set(name, kept);
        continue;
      }
      unreadable.push({ player: name, reason: reasonOf(problem) });
      await SetAside.create({ rulesetId, name: `${name} of ${room}`, saved: kept, reason: reasonOf(problem) });
      hold.forget(name);
    }
    return { saved, unreadable };
  }

  /** What is kept of players. What can't be read is set aside untouched, and said; its player begins anew. */
  private async playersOf(rulesetId: string, rules: Rules, names: readonly string[]): Promise<Kept> {
    const saved = new Map<string, SavedPlayer>();
    for (const player of await Player.findAll({ where: { rulesetId, name: [...names] } })) {
      const [problem] = savedProblems(rules, player.saved);
      if (!problem) saved.set(player.name, player.saved);
      else
        await this.sequelize.transaction(async (transaction) => {
          await SetAside.create({ rulesetId, name: player.name, saved: player.saved, reason: reasonOf(problem) }, { transaction });
          await player.destroy({ transaction });
        });
    }
    const aside = await SetAside.findAll({ where: { rulesetId, name: [...names] } });
    return { saved, unreadable: aside.map(({ name, reason }) => ({ player: name, reason })) };
  }

  /**
   * One after the other for each ruleset: two rooms that ask for the same player at once do not both get them. Nothing that
   * waits for people is done in a turn.
   */
  private inTurn<T>(rulesetId: string, work: () => Promise<T>): Promise<T> {
    const turn = (this.turns.get(rulesetId) ?? Promise.resolve()).then(work);
    const settled = turn.then(
      () => undefined,
      () => undefined,
    );
    this.turns.set(rulesetId, settled);
    void settled.then(() => this.turns.get(rulesetId) === settled && this.turns.delete(rulesetId));
    return turn;
  }

  /** Works on what is kept of players while no room plays them, nor can begin to. @throws PlayersElsewhere */
  withPlayers<T>(rulesetId: string, names: readonly string[], work: () => Promise<T>): Promise<T> {
    return this.inTurn(rulesetId, async () => {
      await this.freePlayers(
        rulesetId,
        names,
        true,
        `${names.join(' and ')} ${names.length === 1 ? 'is' : 'are'} changed from outside; the room goes on in a moment.`,
      );
      return work();
    });
  }

  /**
   * Has no room play these players: one that nobody looks at is stored and sleeps, and so does one with guests only, where
   * somebody asks who is signed in.
   * @param words what guests are told
   */
  private async freePlayers(rulesetId: string, names: readonly string[], signedIn: boolean, words: string): Promise<void> {
    for (const other of this.withSavedPlayers(rulesetId)) {
      const shared = names.filter((name) => other.room.seats.some((seat) => seat.name === name));
      if (shared.length === 0) continue;
      const inTheWay = signedIn ? other.room.watchedByAuthor : other.room.watched;
      if (inTheWay || !(await other.end({ message: words, how: 'later' }))) throw new PlayersElsewhere(shared, other.id);
    }
  }

  /** The rooms of a ruleset that are awake. */
  private playing(rulesetId: string): readonly AwakeRoom[] {
    return [...this.awake].filter(({ room }) => room.rulesetId === rulesetId);
  }

  /** Those of them in which saved players play; guests are in nobody's way. */
  private withSavedPlayers(rulesetId: string): readonly AwakeRoom[] {
    return this.playing(rulesetId).filter(({ ofGuests }) => !ofGuests);
  }

  /** Has all that rooms of a ruleset have changed be stored, so that who reads it reads the latest. */
  async stored(rulesetId: string): Promise<void> {
    for (const room of this.playing(rulesetId)) await room.save();
  }

  /** Who of a ruleset's players is played just now, each with the id of the room. */
  players(rulesetId: string): ReadonlyMap<string, string> {
    return new Map(
      this.withSavedPlayers(rulesetId)
        .filter(({ room }) => room.watched)
        .flatMap(({ id, room }) => room.seats.map(({ name }) => [name, id] as const)),
    );
  }

  /** A room that nobody has looked at for long sleeps, unless somebody has come meanwhile. */
  private forget(forgotten: AwakeRoom): Promise<void> {
    return this.inTurn(forgotten.room.rulesetId, async () => {
      if (!forgotten.room.watched && this.awake.holds(forgotten)) await forgotten.end();
    });
  }

  /** Has rooms that are awake, or about to be, go by an edited document. Where there are none nothing is compiled here. */
  async edited(rulesetId: string, document: Readonly<Record<string, unknown>>, revision: number): Promise<void> {
    if (this.playing(rulesetId).length === 0 && this.waking.size === 0) return;
    const edited = { rules: await this.rulesOf(document), rulesetId, revision };
    for (const { room } of this.playing(rulesetId)) room.edited(edited);
    for (const hear of this.waking) hear(edited);
  }

  /** @throws HttpProblem 422 with every problem where the document is not sound, as one of an earlier version may be */
  private async rulesOf(document: unknown): Promise<Rules> {
    const { rules, problems } = await this.loop.through(readRulesetInParts(document));
    if (!rules) throw new HttpProblem(422, 'The ruleset has problems', 'Mend it in the Rulebook first.', { problems });
    return rules;
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
