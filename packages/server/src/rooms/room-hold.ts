import { promisify } from 'node:util';
import { deflateRaw, inflateRaw } from 'node:zlib';
import {
  followSaved,
  readChanges,
  readSnapshot,
  type Rules,
  type SavedPlayer,
  type Snapshot,
  storeChanges,
  storeSnapshot,
  World,
} from '@eager-ember/core';
import type { Logger } from 'pino';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { type Room as RoomRow, RoomSnapshot } from '../database/models.js';
import type { RoomState } from './room.js';

const deflated = promisify(deflateRaw);
const inflated = promisify(inflateRaw);

/** So often what has changed is stored; after that the world is stored whole again, as what has changed grows. */
const MOST_WRITES = 120;

/** Documents as text: put in words once for all rooms that run under the same rules. */
const texts = new WeakMap<object, string>();
function textOf(document: object): string {
  let text = texts.get(document);
  if (text === undefined) texts.set(document, (text = JSON.stringify(document)));
  return text;
}

/** Somebody else has woken the room since, or it is gone: what is here is not stored any more. */
export class NotHeld extends Error {
  constructor(id: string) {
    super(`Room ${id} was woken elsewhere, or is gone: what stands here is not stored.`);
  }
}

/** A room as it was stored, under today's rules. */
export interface Stored {
  /** Undefined where none was stored, or it can't be read any more. */
  readonly world?: World;
  /** What its guests keep, by the names of their seats. */
  readonly guests: ReadonlyMap<string, SavedPlayer>;
}

/**
 * The right to store a room. Who wakes a room last has it, whichever process that is, and who had it before has not: every
 * write says by which waking it is made and which tick it follows, and is refused where it is not the last one.
 */
export class RoomHold {
  /** The latest tick that is stored, or may be: a write of which nobody heard how it ended counts. */
  private follows = 0;
  /** The revision whose rules are stored along; -1 for none by this hold. */
  private revision = -1;
  /** The world as it is stored whole; what has changed since is stored beside it. */
  private whole: { readonly world: Snapshot; writes: number } | undefined;
  /** What the guests of the room keep, by the names of their seats, as JSON. */
  private guests = new Map<string, string>();

  private constructor(
    private readonly sequelize: Sequelize,
    private readonly log: Logger,
    readonly room: string,
    readonly rulesetId: string,
    private readonly opening: number,
    /** Whether guests play in it, and not the ruleset's saved players. */
    readonly ofGuests: boolean,
  ) {}

  /** Takes the right to store a room from whoever had it. Undefined where the room is gone. */
  static async take(sequelize: Sequelize, log: Logger, { id, rulesetId, players }: RoomRow): Promise<RoomHold | undefined> {
    const [row] = await sequelize.query<{ openings: number }>(
      'UPDATE rooms SET openings = openings + 1 WHERE id = :id RETURNING openings',
      { type: QueryTypes.SELECT, replacements: { id } },
    );
    return row && new RoomHold(sequelize, log, id, rulesetId, row.openings, players === 'guests');
  }

  /**
   * The room as it was last stored.
   * @param rulesOf compiles the rules that it was stored under, where those are others
   */
  async read(
    rules: Rules,
    revision: number,
    rulesOf: (revision: number, document: Readonly<Record<string, unknown>>) => Promise<Rules>,
  ): Promise<Stored> {
    const stored = await RoomSnapshot.findByPk(this.room);
    const guests = new Map<string, SavedPlayer>();
    if (!stored) return { guests };
    const keep = (name: string, saved: SavedPlayer) => {
      guests.set(name, saved);
      this.guests.set(name, JSON.stringify(saved));
    };
    this.follows = stored.tick;
    try {
      for (const [name, saved] of Object.entries(stored.guests)) keep(name, saved);
      const before = stored.revision === revision ? rules : await rulesOf(stored.revision, stored.document);
      for (const [name, saved] of Object.entries(stored.guests)) keep(name, followSaved(before, rules, saved));
      const whole = readSnapshot(await inflated(stored.world));
      const world = World.restore(before, stored.changes ? readChanges(whole, stored.changes) : whole);
      return { world: before === rules ? world : world.adopt(rules), guests };
    } catch (error) {
      this.log.warn({ err: error, room: this.room }, 'a stored room can’t be read; it begins anew with what its players kept');
      return { guests };
    }
  }

  /** What this guest keeps is not stored on: it is set aside. */
  forget(guest: string): void {
    this.guests = new Map([...this.guests].filter(([name]) => name !== guest));
  }

  /**
   * Stores the room as it stands and its changed players, in one step: what a player has and what is left in a chest never
   * disagree.
   * @throws NotHeld where the room was woken elsewhere since, or a later tick is stored
   */
  async write(
    { world, revision, document, tick }: RoomState,
    players: readonly { readonly name: string; readonly text: string }[],
  ): Promise<void> {
    const known = this.revision === revision;
    const changes = known && this.whole && this.whole.writes < MOST_WRITES ? storeChanges(this.whole.world, world) : undefined;
    const packed = changes ? undefined : await deflated(storeSnapshot(world));
    const guests = this.ofGuests ? new Map([...this.guests, ...players.map(({ name, text }) => [name, text] as const)]) : this.guests;
    try {
      await this.sequelize.transaction(async (transaction) => {
        const [last] = await this.sequelize.query<{ openings: number; tick: number | null }>(
          `SELECT rooms.openings, snapshots.tick FROM rooms LEFT JOIN snapshots ON snapshots.room_id = rooms.id
           WHERE rooms.id = :room FOR UPDATE OF rooms`,
          { type: QueryTypes.SELECT, replacements: { room: this.room }, transaction },
        );
        if (last?.openings !== this.opening || (last.tick ?? 0) > this.follows) throw new NotHeld(this.room);
        if (players.length > 0 && !this.ofGuests) await this.writePlayers(players, revision, transaction);
        const texts = [...guests].map(([name, text]) => `${JSON.stringify(name)}:${text}`);
        const kept = { tick, guests: `{${texts.join(',')}}` };
        if (packed) await this.writeWhole({ ...kept, revision, world: packed }, known ? undefined : document, transaction);
        else await this.writeChanges({ ...kept, changes: Buffer.from(changes!) }, transaction);
      });
      this.follows = tick;
      this.guests = guests;
      this.revision = revision;
      if (packed) this.whole = { world, writes: 0 };
      else this.whole!.writes++;
    } catch (error) {
      // Nobody heard what is there now.
      this.whole = undefined;
      this.follows = Math.max(this.follows, tick);
      throw error;
    }
  }

  private async writePlayers(
    players: readonly { readonly name: string; readonly text: string }[],
    revision: number,
    transaction: Transaction,
  ): Promise<void> {
    const rows = players.map((_, i) => `($ruleset, $name${i}, $saved${i}::json, $revision, $now)`);
    const own = Object.fromEntries(players.flatMap(({ name, text }, i) => [[`name${i}`, name] as const, [`saved${i}`, text] as const]));
    await this.sequelize.query(
      `INSERT INTO players (ruleset_id, name, saved, revision, updated_at) VALUES ${rows.join(', ')}
       ON CONFLICT (ruleset_id, name) DO UPDATE SET saved = EXCLUDED.saved, revision = EXCLUDED.revision, updated_at = EXCLUDED.updated_at`,
      { bind: { ruleset: this.rulesetId, revision, now: new Date(), ...own }, type: QueryTypes.INSERT, transaction },
    );
  }

  /** @param document the rules that it stands under, where those are not what is stored */
  private async writeWhole(
    { revision, world, tick, guests }: Pick<RoomSnapshot, 'revision' | 'world' | 'tick'> & { readonly guests: string },
    document: object | undefined,
    transaction: Transaction,
  ): Promise<void> {
    await this.sequelize.query(
      `INSERT INTO snapshots (room_id, revision, document, world, changes, tick, guests, updated_at)
       VALUES ($room, $revision, $document::json, $world, NULL, $tick, $guests::json, $now)
       ON CONFLICT (room_id) DO UPDATE SET world = EXCLUDED.world, changes = NULL, tick = EXCLUDED.tick, guests = EXCLUDED.guests,
       updated_at = EXCLUDED.updated_at${document ? ', revision = EXCLUDED.revision, document = EXCLUDED.document' : ''}`,
      {
        bind: {
          room: this.room,
          revision,
          document: document ? textOf(document) : '{}',
          world,
          tick,
          guests,
          now: new Date(),
        },
        type: QueryTypes.INSERT,
        transaction,
      },
    );
  }

  private async writeChanges(
    row: { readonly changes: Buffer; readonly tick: number; readonly guests: string },
    transaction: Transaction,
  ): Promise<void> {
    const [, count] = await this.sequelize.query(
      'UPDATE snapshots SET changes = $changes, tick = $tick, guests = $guests::json, updated_at = $now WHERE room_id = $room',
      { bind: { ...row, room: this.room, now: new Date() }, type: QueryTypes.UPDATE, transaction },
    );
    if (count !== 1) throw new Error(`What room ${this.room} has changed from is not stored any more; it is stored whole next.`);
  }
}
