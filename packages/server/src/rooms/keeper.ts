import { randomBytes, randomInt } from 'node:crypto';
import { promisify } from 'node:util';
import { deflateRaw, inflateRaw } from 'node:zlib';
import { readSnapshot, type Rules, type SavedPlayer, savedProblems, seatProblems, World } from '@eager-ember/core';
import type { Logger } from 'pino';
import type { Sequelize } from 'sequelize';
import { Player, Room as RoomRow, RoomSnapshot, type Ruleset, Seat, SetAside } from '../database/models.js';
import { HttpProblem, isDatabaseGone } from '../http/problems.js';
import { findRuleset, rulesFrom } from '../http/rulesets.js';
import { Clock } from './clock.js';
import { FIRST, SEAT_NAMES, SECOND } from './names.js';
import { type Client, Room } from './room.js';
import { machineTime, type Time } from './time.js';

const deflated = promisify(deflateRaw);
const inflated = promisify(inflateRaw);
/** How often a room and its changed players are stored. What a crash can lose is less than this. */
const SAVE_EVERY_MS = 500;
/** How often a room is told what time it is. */
const CLOCK_EVERY_MS = 10_000;
/** How long a room that is just being left is waited for by another that wants its players. */
const PATIENCE_MS = 2500;
/** How long a room that nobody looks at is held ready; after that it is read again as it was stored. */
export const ASLEEP_MS = 10 * 60_000;

interface Open {
  readonly room: Room;
  readonly clock: Clock;
  saving: Promise<void>;
  lastSave: number;
  lastClock: number;
  /** The tick and the revision that were last stored; -1 for none by this process. */
  storedTick: number;
  storedRevision: number;
}

/** What the party of a room is called. */
const PARTY = 'party';

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

/** A room as the workbench is told of it. */
export interface RoomDescription {
  readonly id: string;
  readonly ruleset: string;
  readonly seed: number;
  readonly createdAt: Date;
  /** `join` is the path of the seat's join link. */
  readonly seats: readonly { readonly name: string; readonly team: string | null; readonly party: string | null; readonly join: string }[];
}

export interface Measures {
  tickSeconds(seconds: number): void;
  lateSeconds(seconds: number): void;
}

/** Keeps rooms: opens them when somebody comes, runs them while somebody is there, stores what players keep. */
export class RoomKeeper {
  private readonly open = new Map<string, Promise<Open>>();
  private readonly turns = new Map<string, Promise<void>>();

  constructor(
    private readonly sequelize: Sequelize,
    private readonly log: Logger,
    private readonly measures: Measures,
    private readonly time: Time = machineTime,
  ) {}

  /** A new room with one to four seats; the rules say which team each comes into, those of `party` into one while there is room. */
  async create(ruleset: Ruleset, count = 2, party: readonly string[] = []): Promise<RoomRow> {
    const rules = rulesFrom(ruleset.document);
    const [problem] = seatProblems(rules, {});
    if (problem) throw new HttpProblem(422, 'Nobody could take a seat', problem.message);
    return this.sequelize.transaction(async (transaction) => {
      const id = await this.freeName();
      const row = await RoomRow.create({ id, rulesetId: ruleset.id, seed: randomInt(1, 2 ** 31 - 1) }, { transaction });
      const seats = SEAT_NAMES.slice(0, count).map((name) => ({
        roomId: id,
        name,
        team: null,
        party: party.includes(name) ? PARTY : null,
        token: randomBytes(18).toString('base64url'),
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

  /** What the workbench shows of a room, with the tokens of its join links. */
  async describe(id: string): Promise<RoomDescription | undefined> {
    const row = await RoomRow.findByPk(id);
    if (!row) return undefined;
    const seats = await this.seatsOf(id);
    return {
      id,
      ruleset: row.rulesetId,
      seed: row.seed,
      createdAt: row.createdAt,
      seats: seats.map(({ name, team, party, token }) => ({ name, team, party: party ?? null, join: `/join/${token}` })),
    };
  }

  async ofRuleset(rulesetId: string): Promise<readonly { id: string; createdAt: Date; open: boolean }[]> {
    const rows = await RoomRow.findAll({ where: { rulesetId }, order: [['createdAt', 'DESC']], limit: 20 });
    return rows.map(({ id, createdAt }) => ({ id, createdAt, open: this.open.has(id) }));
  }

  private async seatsOf(id: string): Promise<readonly Seat[]> {
    const seats = await Seat.findAll({ where: { roomId: id } });
    return [...seats].sort((a, b) => SEAT_NAMES.indexOf(a.name) - SEAT_NAMES.indexOf(b.name));
  }

  /** The running room, opened where it sleeps; undefined where there is none of that name. */
  async room(id: string): Promise<Open | undefined> {
    if (!this.open.has(id)) {
      const row = await RoomRow.findByPk(id);
      if (!row) return undefined;
      if (!this.open.has(id)) {
        const opening = this.wake(row);
        this.open.set(id, opening);
        opening.catch(() => this.open.delete(id));
      }
    }
    return this.open.get(id);
  }

  private async wake(row: RoomRow): Promise<Open> {
    const ruleset = await findRuleset(row.rulesetId);
    const rules = rulesFrom(ruleset.document);
    const seats = await this.seatsOf(row.id);
    const { saved, notices } = await this.playersOf(
      ruleset.id,
      rules,
      seats.map(({ name }) => name),
    );
    const room = new Room(
      row.id,
      { rules, rulesetId: ruleset.id, revision: ruleset.revision },
      row.seed,
      seats,
      saved,
      await this.stood(row.id, rules, ruleset.revision),
      notices,
    );
    const opened: Open = {
      room,
      saving: Promise.resolve(),
      lastSave: 0,
      lastClock: 0,
      storedTick: -1,
      storedRevision: -1,
      clock: new Clock(
        () => room.ticksPerSecond,
        () => this.tick(opened),
        (ms) => this.measures.lateSeconds(ms / 1000),
        this.time,
      ),
    };
    room.repaced = () => opened.clock.repace();
    return opened;
  }

  /** What is kept of players. What can't be read is set aside untouched, and said; its player begins anew. */
  private async playersOf(
    rulesetId: string,
    rules: Rules,
    names: readonly string[],
  ): Promise<{ saved: Map<string, SavedPlayer>; notices: readonly string[] }> {
    const saved = new Map<string, SavedPlayer>();
    for (const player of await Player.findAll({ where: { rulesetId, name: [...names] } })) {
      const [problem] = savedProblems(rules, player.saved);
      if (!problem) saved.set(player.name, player.saved);
      else
        await this.sequelize.transaction(async (transaction) => {
          const reason = `${problem.path || 'the whole'}: ${problem.message}`;
          await SetAside.create({ rulesetId, name: player.name, saved: player.saved, reason }, { transaction });
          await player.destroy({ transaction });
        });
    }
    const aside = await SetAside.findAll({ where: { rulesetId, name: [...names] } });
    return {
      saved,
      notices: aside.map(
        ({ name, reason }) =>
          `What was kept of ${name} can’t be read (${reason}). It is set aside untouched under Players, and ${name} begins anew.`,
      ),
    };
  }

  private tick(open: Open): void {
    const began = this.time.now();
    if (began - open.lastClock >= CLOCK_EVERY_MS) {
      open.lastClock = began;
      open.room.setClock();
    }
    try {
      open.room.tick();
    } catch (error) {
      this.log.error({ err: error, room: open.room.id }, 'a tick failed; the room is closed');
      open.room.tell({ t: 'error', message: 'The room failed and was closed. What players keep was stored before.', final: true });
      open.clock.stop();
      this.open.delete(open.room.id);
      return;
    }
    this.measures.tickSeconds((this.time.now() - began) / 1000);
    if (began - open.lastSave >= SAVE_EVERY_MS) {
      open.lastSave = began;
      this.save(open);
    }
  }

  /**
   * Stores the room as it stands and its changed players, in one step: what a player has and what is left in a chest never
   * disagree. One write after the other; what could not be stored is tried again at the next turn.
   */
  private save(open: Open): void {
    open.saving = open.saving.then(async () => {
      const { room } = open;
      const changed = room.changedPlayers();
      if (changed.length === 0 && room.tickNumber === open.storedTick) return;
      const { world, revision, document, tick } = room.stands();
      try {
        const packed = await deflated(world);
        await this.sequelize.transaction(async (transaction) => {
          if (changed.length > 0)
            await Player.bulkCreate(
              changed.map(({ name, saved }) => ({ rulesetId: room.rulesetId, name, saved, revision })),
              { updateOnDuplicate: ['saved', 'revision', 'updatedAt'], returning: false, transaction },
            );
          const known = open.storedRevision === revision;
          await RoomSnapshot.bulkCreate([{ roomId: room.id, revision, document: known ? {} : { ...document }, world: packed }], {
            // The rules are only written where they have changed.
            updateOnDuplicate: known ? ['world', 'updatedAt'] : ['world', 'revision', 'document', 'updatedAt'],
            // It would be sent back whole.
            returning: false,
            transaction,
          });
        });
        open.storedTick = tick;
        open.storedRevision = revision;
        for (const { kept } of changed) kept();
        room.tell({ t: 'stored', tick });
      } catch (error) {
        this.log[isDatabaseGone(error) ? 'warn' : 'error']({ err: error, room: room.id }, 'a room could not be stored; trying again');
      }
    });
  }

  /** A room's world as it was last stored, under today's rules; undefined where there is none, or it can't be read any more. */
  private async stood(id: string, rules: Rules, revision: number): Promise<World | undefined> {
    const stored = await RoomSnapshot.findByPk(id);
    if (!stored) return undefined;
    try {
      const snapshot = readSnapshot(await inflated(stored.world));
      if (stored.revision === revision) return World.restore(rules, snapshot);
      return World.restore(rulesFrom(stored.document), snapshot).adopt(rules);
    } catch (error) {
      this.log.warn({ err: error, room: id }, 'a stored room can’t be read; it begins anew with what its players kept');
      return undefined;
    }
  }

  /** @throws PlayersElsewhere where another room that somebody looks at plays one of its players */
  async connect(id: string, client: Client): Promise<Room | undefined> {
    const row = await RoomRow.findByPk(id);
    if (!row) return undefined;
    return this.inTurn(row.rulesetId, async () => {
      const names = (await this.seatsOf(id)).map(({ name }) => name);
      await this.freePlayers(row.rulesetId, names, id);
      const open = await this.room(id);
      if (!open) return undefined;
      open.room.connect(client);
      open.clock.start();
      return open.room;
    });
  }

  /** One after the other for each ruleset: two rooms that ask for the same player at once do not both get them. */
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

  /** Works on what is kept of players while no room plays them, nor can begin to. */
  withPlayers<T>(rulesetId: string, names: readonly string[], work: () => Promise<T>): Promise<T> {
    return this.inTurn(rulesetId, async () => {
      await this.freePlayers(rulesetId, names);
      return work();
    });
  }

  /** Has all that rooms of a ruleset have changed be stored, so that who reads it reads the latest. */
  async stored(rulesetId: string): Promise<void> {
    for (const opening of this.open.values()) {
      const open = await opening.catch(() => undefined);
      if (open?.room.rulesetId !== rulesetId) continue;
      this.save(open);
      await open.saving;
    }
  }

  /** The rooms that somebody looks at, and whom they play. */
  async playing(rulesetId: string): Promise<ReadonlyMap<string, string>> {
    const found = new Map<string, string>();
    for (const opening of this.open.values()) {
      const open = await opening.catch(() => undefined);
      if (open?.room.rulesetId === rulesetId && open.room.watched) for (const { name } of open.room.seats) found.set(name, open.room.id);
    }
    return found;
  }

  /** Has no other room play these players: one that nobody looks at is stored and closed. */
  private async freePlayers(rulesetId: string, names: readonly string[], but?: string): Promise<void> {
    for (const [id, opening] of [...this.open]) {
      if (id === but) continue;
      const open = await opening.catch(() => undefined);
      const shared = open?.room.rulesetId === rulesetId ? names.filter((name) => open.room.seats.some((seat) => seat.name === name)) : [];
      if (!open || shared.length === 0) continue;
      // Who has just gone may not have been noticed yet.
      for (let waited = 0; open.room.watched && waited < PATIENCE_MS; waited += 50) await new Promise((next) => setTimeout(next, 50));
      if (open.room.watched) throw new PlayersElsewhere(shared, id);
      open.clock.stop();
      this.save(open);
      await open.saving;
      if (open.room.changedPlayers().length > 0) throw new PlayersElsewhere(shared, id);
      this.open.delete(id);
    }
  }

  /** A room that nobody looks at stands still, and is woken by the next one who comes. */
  async disconnect(id: string, client: Client): Promise<void> {
    const open = await this.open.get(id);
    if (!open) return;
    open.room.disconnect(client);
    if (open.room.watched) return;
    open.clock.stop();
    this.save(open);
    await open.saving;
    this.time.after(ASLEEP_MS, () => this.forget(id, open));
  }

  private forget(id: string, open: Open): void {
    if (open.room.watched || open.room.changedPlayers().length > 0) return;
    this.open.delete(id);
  }

  edited(rulesetId: string, rules: Rules, revision: number): void {
    for (const opening of this.open.values())
      void opening.then(({ room }) => {
        if (room.rulesetId === rulesetId) room.edited({ rules, rulesetId, revision });
      });
  }

  get count(): number {
    return this.open.size;
  }

  async close(): Promise<void> {
    const all = await Promise.allSettled(this.open.values());
    for (const opened of all) {
      if (opened.status !== 'fulfilled') continue;
      opened.value.clock.stop();
      this.save(opened.value);
      await opened.value.saving;
    }
    this.open.clear();
  }
}
