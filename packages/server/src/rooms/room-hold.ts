import { promisify } from 'node:util';
import { deflateRaw, inflateRaw } from 'node:zlib';
import { followSaved, readSnapshot, type Rules, type SavedPlayer, World } from '@eager-ember/core';
import type { Logger } from 'pino';
import { QueryTypes, type Sequelize } from 'sequelize';
import { Player, type Room as RoomRow, RoomSnapshot } from '../database/models.js';
import type { RoomState } from './room.js';

const deflated = promisify(deflateRaw);
const inflated = promisify(inflateRaw);

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
  /** What the guests of the room keep, by the names of their seats. */
  private guests = new Map<string, SavedPlayer>();

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
    if (!stored) return { guests: this.guests };
    this.follows = stored.tick;
    try {
      for (const [name, saved] of Object.entries(stored.guests)) this.guests.set(name, saved);
      const before = stored.revision === revision ? rules : await rulesOf(stored.revision, stored.document);
      for (const [name, saved] of Object.entries(stored.guests)) this.guests.set(name, followSaved(before, rules, saved));
      const world = World.restore(before, readSnapshot(await inflated(stored.world)));
      return { world: before === rules ? world : world.adopt(rules), guests: this.guests };
    } catch (error) {
      this.log.warn({ err: error, room: this.room }, 'a stored room can’t be read; it begins anew with what its players kept');
      return { guests: this.guests };
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
    players: readonly { readonly name: string; readonly saved: SavedPlayer }[],
  ): Promise<void> {
    const packed = await deflated(world);
    const known = this.revision === revision;
    const guests = this.ofGuests ? new Map([...this.guests, ...players.map(({ name, saved }) => [name, saved] as const)]) : this.guests;
    try {
      await this.sequelize.transaction(async (transaction) => {
        const [last] = await this.sequelize.query<{ openings: number; tick: number | null }>(
          `SELECT rooms.openings, snapshots.tick FROM rooms LEFT JOIN snapshots ON snapshots.room_id = rooms.id
           WHERE rooms.id = :room FOR UPDATE OF rooms`,
          { type: QueryTypes.SELECT, replacements: { room: this.room }, transaction },
        );
        if (last?.openings !== this.opening || (last.tick ?? 0) > this.follows) throw new NotHeld(this.room);
        if (players.length > 0 && !this.ofGuests)
          await Player.bulkCreate(
            players.map(({ name, saved }) => ({ rulesetId: this.rulesetId, name, saved, revision })),
            { updateOnDuplicate: ['saved', 'revision', 'updatedAt'], returning: false, transaction },
          );
        const row = { roomId: this.room, revision, document: known ? {} : { ...document }, world: packed, tick };
        const columns = ['world', 'tick', 'guests', 'updatedAt'] as const;
        await RoomSnapshot.bulkCreate([{ ...row, guests: Object.fromEntries(guests) }], {
          // The rules are only written where they have changed.
          updateOnDuplicate: known ? [...columns] : [...columns, 'revision', 'document'],
          // It would be sent back whole.
          returning: false,
          transaction,
        });
      });
      this.follows = tick;
      this.guests = guests;
      this.revision = revision;
    } catch (error) {
      this.follows = Math.max(this.follows, tick);
      throw error;
    }
  }
}
