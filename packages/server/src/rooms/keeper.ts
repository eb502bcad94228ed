import { randomBytes, randomInt } from 'node:crypto';
import { type Rules, type SavedPlayer, seatProblems, teamIds } from '@eager-ember/core';
import type { Logger } from 'pino';
import type { Sequelize } from 'sequelize';
import { Player, Room as RoomRow, type Ruleset, Seat } from '../database/models.js';
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
const SEATS = 2;
/** How often changed players are stored. What a crash can lose is less than this. */
const SAVE_EVERY_MS = 500;
/** How long a room that nobody looks at is remembered as it stands; after that it begins anew with what its players kept. */
const ASLEEP_MS = 10 * 60_000;

interface Open {
  readonly room: Room;
  readonly clock: Clock;
  saving: Promise<void>;
  lastSave: number;
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

  /** A new room with two seats, one for each of the first two teams. */
  async create(ruleset: Ruleset): Promise<RoomRow> {
    const rules = rulesFrom(ruleset.document);
    const [problem] = seatProblems(rules, {});
    if (problem) throw new HttpProblem(422, 'Nobody could take a seat', problem.message);
    const teams = teamIds(rules);
    return this.sequelize.transaction(async (transaction) => {
      const id = await this.freeName();
      const row = await RoomRow.create({ id, rulesetId: ruleset.id, seed: randomInt(1, 2 ** 31 - 1) }, { transaction });
      const seats = SEAT_NAMES.slice(0, SEATS).map((name, i) => ({
        roomId: id,
        name,
        team: teams.length > 0 ? teams[i % teams.length] : null,
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
    );
    const opened: Open = {
      room,
      saving: Promise.resolve(),
      lastSave: 0,
      clock: new Clock(
        () => room.tickRate,
        () => this.tick(opened),
        (ms) => this.measures.lateSeconds(ms / 1000),
      ),
    };
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

  /** Stores changed players, one write after the other; what could not be stored is tried again at the next turn. */
  private save(open: Open): void {
    open.saving = open.saving.then(async () => {
      const changed = open.room.changedPlayers();
      if (changed.length === 0) return;
      try {
        await Player.bulkCreate(
          changed.map(({ name, saved }) => ({ rulesetId: open.room.rulesetId, name, saved })),
          { updateOnDuplicate: ['saved', 'updatedAt'] },
        );
        for (const { kept } of changed) kept();
      } catch (error) {
        this.log[isDatabaseGone(error) ? 'warn' : 'error']({ err: error, room: open.room.id }, 'players could not be stored; trying again');
      }
    });
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
