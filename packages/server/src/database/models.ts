import { type SavedPlayer, upgradeDocument } from '@eager-ember/core';
import pg from 'pg';
import { type CreationOptional, DataTypes, type InferAttributes, type InferCreationAttributes, Model, Sequelize } from 'sequelize';

type Fields<M extends Model> = InferAttributes<M>;
type NewFields<M extends Model> = InferCreationAttributes<M>;

export class User extends Model<Fields<User>, NewFields<User>> {
  declare id: CreationOptional<string>;
  declare name: string;
}

export class Session extends Model<Fields<Session>, NewFields<Session>> {
  /** SHA-256 of the token in the cookie. */
  declare id: string;
  declare userId: string;
  /** What the browser calls itself. */
  declare agent: CreationOptional<string>;
  declare createdAt: CreationOptional<Date>;
  /** When it was last put off. */
  declare seenAt: CreationOptional<Date>;
  declare expiresAt: Date;
}

export class Ruleset extends Model<Fields<Ruleset>, NewFields<Ruleset>> {
  declare id: CreationOptional<string>;
  declare name: string;
  /** As authored: `json`, not `jsonb`, since the order of keys is the author's. */
  declare document: Record<string, unknown>;
  declare revision: number;
  declare createdAt: CreationOptional<Date>;
  declare updatedAt: CreationOptional<Date>;
}

export class Revision extends Model<Fields<Revision>, NewFields<Revision>> {
  declare rulesetId: string;
  declare revision: number;
  /** JSON Patch (RFC 6902) from the revision before. */
  declare patch: unknown;
  declare userId: string;
  /** By what its sender knows it again, should the answer be lost. */
  declare key: CreationOptional<string | null>;
  declare createdAt: CreationOptional<Date>;
}

/**
 * Who plays in a room: the ruleset's saved players, who take what they have from room to room, or guests, who begin with the
 * room and end with it.
 */
export const PLAYERS = ['guests', 'saved'] as const;
export type Players = (typeof PLAYERS)[number];

export class Room extends Model<Fields<Room>, NewFields<Room>> {
  declare id: string;
  declare rulesetId: string;
  declare seed: number;
  /** How often it was woken: only who woke it last may store it. */
  declare openings: CreationOptional<number>;
  declare players: CreationOptional<Players>;
  declare createdAt: CreationOptional<Date>;
}

export class Seat extends Model<Fields<Seat>, NewFields<Seat>> {
  declare roomId: string;
  declare name: string;
  declare team: string | null;
  /** With whom its player comes: those of one party go into one crew, while there is room. */
  declare party: CreationOptional<string | null>;
  /** Opens the seat to whoever has the join link; null where its link was ended. */
  declare token: string | null;
  /** When the link ends by itself. */
  declare linkUntil: Date | null;
}

export class Player extends Model<Fields<Player>, NewFields<Player>> {
  declare rulesetId: string;
  declare name: string;
  declare saved: SavedPlayer;
  /** The revision of the ruleset under which it was saved; 0 where that is not known. */
  declare revision: CreationOptional<number>;
  declare updatedAt: CreationOptional<Date>;
}

/** What was kept of a player and cannot be read: untouched, until somebody decides. */
export class SetAside extends Model<Fields<SetAside>, NewFields<SetAside>> {
  declare id: CreationOptional<string>;
  declare rulesetId: string;
  declare name: string;
  /** As it was found. */
  declare saved: unknown;
  declare reason: string;
  declare createdAt: CreationOptional<Date>;
}

/** A room as it stood, with the rules that it stood under: written together with what its players keep. */
export class RoomSnapshot extends Model<Fields<RoomSnapshot>, NewFields<RoomSnapshot>> {
  declare roomId: string;
  declare revision: number;
  declare document: Record<string, unknown>;
  /** The stored world, deflated (RFC 1951). */
  declare world: Buffer;
  /** What has changed in it since it was stored; null where nothing has. */
  declare changes: CreationOptional<Buffer | null>;
  /** The tick that the world stands at, what has changed included. */
  declare tick: CreationOptional<number>;
  /** What the guests of the room keep, by the names of their seats, under the same rules. */
  declare guests: CreationOptional<Readonly<Record<string, SavedPlayer>>>;
  declare updatedAt: CreationOptional<Date>;
}

/** Who did what. Written once, never changed. */
export class TrailEntry extends Model<Fields<TrailEntry>, NewFields<TrailEntry>> {
  /** Counts up. As text: the database's own numbers may be larger than those of a number here. */
  declare id: CreationOptional<string>;
  declare at: Date;
  declare rulesetId: string | null;
  /** Null for the machine's own terminal. */
  declare userId: string | null;
  declare what: string;
  declare about: unknown;
}

// Made anew for each use: the library writes into what it is given.
const uuid = () => ({ type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 });
const key = () => ({ type: DataTypes.TEXT, primaryKey: true });
const at = () => ({ type: DataTypes.DATE, allowNull: false });
const text = () => ({ type: DataTypes.TEXT, allowNull: false });
const json = () => ({ type: DataTypes.JSON, allowNull: false });
const ruleset = () => ({ type: DataTypes.UUID, allowNull: false });
const whole = () => ({ type: DataTypes.INTEGER, allowNull: false });

/** The database, its models bound to it. Migrations, not the models, make the tables. */
export function connect(url: string, log: (sql: string) => void = () => undefined): Sequelize {
  const sequelize = new Sequelize(url, {
    dialect: 'postgres',
    // By itself it would look for its driver by name, wherever it runs from.
    dialectModule: pg,
    logging: log,
    pool: { max: 8, acquire: 4000 },
    retry: { max: 0 },
    define: { underscored: true },
  });
  const timed = { sequelize, createdAt: 'createdAt', updatedAt: 'updatedAt' } as const;
  User.init({ id: uuid(), name: text() }, { sequelize, tableName: 'users', timestamps: false });
  Session.init(
    {
      id: key(),
      userId: { type: DataTypes.UUID, allowNull: false },
      agent: { ...text(), defaultValue: '' },
      createdAt: at(),
      seenAt: { ...at(), defaultValue: DataTypes.NOW },
      expiresAt: at(),
    },
    { ...timed, tableName: 'sessions', updatedAt: false },
  );
  Ruleset.init(
    {
      id: uuid(),
      name: text(),
      document: {
        ...json(),
        // What was stored in an earlier version of the format is edited, and stored again, in this one.
        get(this: Ruleset) {
          return upgradeDocument(this.getDataValue('document'));
        },
      },
      revision: whole(),
      createdAt: at(),
      updatedAt: at(),
    },
    { ...timed, tableName: 'rulesets' },
  );
  Revision.init(
    {
      rulesetId: { ...ruleset(), primaryKey: true },
      revision: { ...whole(), primaryKey: true },
      patch: json(),
      userId: { type: DataTypes.UUID, allowNull: false },
      key: DataTypes.TEXT,
      createdAt: at(),
    },
    { ...timed, tableName: 'revisions', updatedAt: false },
  );
  Room.init(
    {
      id: key(),
      rulesetId: ruleset(),
      seed: whole(),
      openings: { ...whole(), defaultValue: 0 },
      players: { ...text(), defaultValue: 'guests' },
      createdAt: at(),
    },
    { ...timed, tableName: 'rooms', updatedAt: false },
  );
  Seat.init(
    {
      roomId: { ...text(), primaryKey: true },
      name: key(),
      team: DataTypes.TEXT,
      party: DataTypes.TEXT,
      token: DataTypes.TEXT,
      linkUntil: DataTypes.DATE,
    },
    { sequelize, tableName: 'seats', timestamps: false },
  );
  Player.init(
    {
      rulesetId: { ...ruleset(), primaryKey: true },
      name: key(),
      saved: json(),
      revision: { ...whole(), defaultValue: 0 },
      updatedAt: at(),
    },
    { ...timed, tableName: 'players', createdAt: false },
  );
  SetAside.init(
    { id: uuid(), rulesetId: ruleset(), name: text(), saved: json(), reason: text(), createdAt: at() },
    { ...timed, tableName: 'set_aside', updatedAt: false },
  );
  RoomSnapshot.init(
    {
      roomId: { ...text(), primaryKey: true },
      revision: whole(),
      document: json(),
      world: { type: DataTypes.BLOB, allowNull: false },
      tick: { ...whole(), defaultValue: 0 },
      changes: { type: DataTypes.BLOB, allowNull: true },
      guests: { ...json(), defaultValue: {} },
      updatedAt: at(),
    },
    { ...timed, tableName: 'snapshots', createdAt: false },
  );
  TrailEntry.init(
    {
      id: { type: DataTypes.BIGINT, primaryKey: true, autoIncrement: true },
      at: at(),
      rulesetId: { type: DataTypes.UUID, allowNull: true },
      userId: { type: DataTypes.UUID, allowNull: true },
      what: text(),
      about: json(),
    },
    { sequelize, tableName: 'trail', timestamps: false },
  );
  return sequelize;
}
