import { randomBytes, randomInt } from 'node:crypto';
import { promisify } from 'node:util';
import { deflateRaw, inflateRaw } from 'node:zlib';
import { readSnapshot, type Rules, type SavedPlayer, seatProblems, World } from '@eager-ember/core';
import type { Logger } from 'pino';
import type { Sequelize } from 'sequelize';
import { Player, Room as RoomRow, RoomSnapshot, type Ruleset, Seat } from '../database/models.js';
import { HttpProblem, isDatabaseGone } from '../http/problems.js';
import { findRuleset, rulesFrom } from '../http/rulesets.js';
import { Clock } from './clock.js';
import { type Client, Room } from './room.js';

/** Rooms are named after things of a harbour: a name is said more easily than a number. */
const FIRST = [
  'slate',
  'amber',
  'brass',
  'chalk',
  'copper',
  'coral',
  'drift',
  'dusk',
  'ebb',
  'fog',
  'glass',
  'iron',
  'kelp',
  'lead',
  'moss',
  'pearl',
  'pitch',
  'reed',
  'rust',
  'salt',
];
const SECOND = [
  'anchor',
  'buoy',
  'cable',
  'cleat',
  'davit',
  'diver',
  'hatch',
  'heron',
  'hull',
  'jetty',
  'keel',
  'lamp',
  'mast',
  'oar',
  'pier',
  'quay',
  'rudder',
  'sluice',
  'tern',
  'winch',
];
const SEAT_NAMES = ['north', 'south', 'east', 'west'];
const deflated = promisify(deflateRaw);
const inflated = promisify(inflateRaw);
/** How often a room and its changed players are stored. What a crash can lose is less than this. */
const SAVE_EVERY_MS = 500;
/** How long a room that nobody looks at is held ready; after that it is read again as it was stored. */
const ASLEEP_MS = 10 * 60_000;

interface Open {
  readonly room: Room;
  readonly clock: Clock;
  saving: Promise<void>;
  lastSave: number;
  /** The tick and the revision that were last stored; -1 for none by this process. */
  storedTick: number;
  storedRevision: number;
}

/** A room as the workbench is told of it. */
export interface RoomDescription {
  readonly id: string;
  readonly ruleset: string;
  readonly seed: number;
  readonly createdAt: Date;
  /** `join` is the path of the seat's join link. */
  readonly seats: readonly { readonly name: string; readonly team: string | null; readonly join: string }[];
}

export interface Measures {
  tickSeconds(seconds: number): void;
  lateSeconds(seconds: number): void;
}

/** Keeps rooms: opens them when somebody comes, runs them while somebody is there, stores what players keep. */
export class RoomKeeper {
  private readonly open = new Map<string, Promise<Open>>();

  constructor(
    private readonly sequelize: Sequelize,
    private readonly log: Logger,
    private readonly measures: Measures,
    private readonly asleepMs = ASLEEP_MS,
  ) {}

  /** A new room with one to four seats; the rules say which team each comes into. */
  async create(ruleset: Ruleset, count = 2): Promise<RoomRow> {
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
      seats: seats.map(({ name, team, token }) => ({ name, team, join: `/join/${token}` })),
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
    const players = await Player.findAll({ where: { rulesetId: row.rulesetId } });
    const saved = new Map<string, SavedPlayer>(players.map((player) => [player.name, player.saved]));
    const room = new Room(
      row.id,
      { rules, rulesetId: ruleset.id, revision: ruleset.revision },
      row.seed,
      await this.seatsOf(row.id),
      saved,
      await this.stood(row.id, rules, ruleset.revision),
    );
    const opened: Open = {
      room,
      saving: Promise.resolve(),
      lastSave: 0,
      storedTick: -1,
      storedRevision: -1,
      clock: new Clock(
        () => room.ticksPerSecond,
        () => this.tick(opened),
        (ms) => this.measures.lateSeconds(ms / 1000),
      ),
    };
    room.repaced = () => opened.clock.repace();
    return opened;
  }

  private tick(open: Open): void {
    const began = performance.now();
    try {
      open.room.tick();
    } catch (error) {
      this.log.error({ err: error, room: open.room.id }, 'a tick failed; the room is closed');
      open.room.tell({ t: 'error', message: 'The room failed and was closed. What players keep was stored before.', final: true });
      open.clock.stop();
      this.open.delete(open.room.id);
      return;
    }
    this.measures.tickSeconds((performance.now() - began) / 1000);
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
              changed.map(({ name, saved }) => ({ rulesetId: room.rulesetId, name, saved })),
              { updateOnDuplicate: ['saved', 'updatedAt'], transaction },
            );
          const known = open.storedRevision === revision;
          await RoomSnapshot.bulkCreate([{ roomId: room.id, revision, document: known ? {} : { ...document }, world: packed }], {
            // The rules are only written where they have changed.
            updateOnDuplicate: known ? ['world', 'updatedAt'] : ['world', 'revision', 'document', 'updatedAt'],
            transaction,
          });
        });
        open.storedTick = tick;
        open.storedRevision = revision;
        for (const { kept } of changed) kept();
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

  async connect(id: string, client: Client): Promise<Room | undefined> {
    const open = await this.room(id);
    if (!open) return undefined;
    open.room.connect(client);
    open.clock.start();
    return open.room;
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
    setTimeout(() => this.forget(id, open), this.asleepMs).unref();
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
