import type { QueryInterface, Sequelize } from 'sequelize';
import { DataTypes } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';

interface Step {
  readonly name: string;
  readonly up: (query: QueryInterface) => Promise<void>;
  readonly down: (query: QueryInterface) => Promise<void>;
}

// Made anew for each use: the library writes into what it is given.
const uuid = () => ({ type: DataTypes.UUID, allowNull: false });
const text = () => ({ type: DataTypes.TEXT, allowNull: false });
const whole = () => ({ type: DataTypes.INTEGER, allowNull: false });
const json = () => ({ type: DataTypes.JSON, allowNull: false });
const at = () => ({ type: DataTypes.DATE, allowNull: false });
const belongsTo = (model: string, column: { type: unknown; allowNull: boolean }) =>
  ({ ...column, references: { model, key: 'id' }, onDelete: 'CASCADE' }) as never;

/** In order, each once. What has landed is never edited: what follows is a step of its own. */
const STEPS: readonly Step[] = [
  {
    name: '0001-people-and-rulesets',
    up: async (query) => {
      await query.createTable('users', { id: { ...uuid(), primaryKey: true }, name: text() });
      await query.createTable('sessions', { id: { ...text(), primaryKey: true }, user_id: belongsTo('users', uuid()), expires_at: at() });
      await query.createTable('rulesets', {
        id: { ...uuid(), primaryKey: true },
        name: text(),
        document: json(),
        revision: whole(),
        created_at: at(),
        updated_at: at(),
      });
      await query.createTable('revisions', {
        ruleset_id: belongsTo('rulesets', { ...uuid(), primaryKey: true } as never),
        revision: { ...whole(), primaryKey: true },
        patch: json(),
        user_id: belongsTo('users', uuid()),
        created_at: at(),
      });
    },
    down: async (query) => {
      for (const table of ['revisions', 'rulesets', 'sessions', 'users']) await query.dropTable(table);
    },
  },
  {
    name: '0002-rooms-and-players',
    up: async (query) => {
      await query.createTable('rooms', {
        id: { ...text(), primaryKey: true },
        ruleset_id: belongsTo('rulesets', uuid()),
        seed: whole(),
        created_at: at(),
      });
      await query.createTable('seats', {
        room_id: belongsTo('rooms', { ...text(), primaryKey: true } as never),
        name: { ...text(), primaryKey: true },
        team: { type: DataTypes.TEXT },
        token: { ...text(), unique: true },
      });
      await query.createTable('players', {
        ruleset_id: belongsTo('rulesets', { ...uuid(), primaryKey: true } as never),
        name: { ...text(), primaryKey: true },
        saved: json(),
        updated_at: at(),
      });
    },
    down: async (query) => {
      for (const table of ['players', 'seats', 'rooms']) await query.dropTable(table);
    },
  },
  {
    name: '0003-snapshots-of-rooms',
    up: async (query) => {
      await query.createTable('snapshots', {
        room_id: belongsTo('rooms', { ...text(), primaryKey: true } as never),
        revision: whole(),
        document: json(),
        world: { type: DataTypes.BLOB, allowNull: false },
        updated_at: at(),
      });
    },
    down: async (query) => {
      await query.dropTable('snapshots');
    },
  },
  {
    name: '0004-players-set-aside',
    up: async (query) => {
      await query.addColumn('players', 'revision', { ...whole(), defaultValue: 0 });
      await query.createTable('set_aside', {
        id: { ...uuid(), primaryKey: true },
        ruleset_id: belongsTo('rulesets', uuid()),
        name: text(),
        saved: json(),
        reason: text(),
        created_at: at(),
      });
    },
    down: async (query) => {
      await query.dropTable('set_aside');
      await query.removeColumn('players', 'revision');
    },
  },
  {
    name: '0005-parties',
    up: async (query) => {
      await query.addColumn('seats', 'party', { type: DataTypes.TEXT, allowNull: true });
    },
    down: async (query) => {
      await query.removeColumn('seats', 'party');
    },
  },
  {
    name: '0006-holders-of-rooms-and-ends-of-links',
    up: async (query) => {
      await query.addColumn('rooms', 'openings', { ...whole(), defaultValue: 0 });
      await query.addColumn('snapshots', 'tick', { ...whole(), defaultValue: 0 });
      await query.changeColumn('seats', 'token', { type: DataTypes.TEXT, allowNull: true });
      // Links that are there already live on for as long as a new one does.
      await query.addColumn('seats', 'link_until', { type: DataTypes.DATE, allowNull: true });
      await query.sequelize.query(`UPDATE seats SET link_until = now() + interval '30 days'`);
    },
    down: async (query) => {
      await query.removeColumn('seats', 'link_until');
      await query.bulkDelete('seats', { token: null });
      await query.changeColumn('seats', 'token', text());
      await query.removeColumn('snapshots', 'tick');
      await query.removeColumn('rooms', 'openings');
    },
  },
  {
    name: '0007-sessions-that-are-listed',
    up: async (query) => {
      const now = { ...at(), defaultValue: DataTypes.NOW };
      await query.addColumn('sessions', 'agent', { ...text(), defaultValue: '' });
      await query.addColumn('sessions', 'created_at', now);
      await query.addColumn('sessions', 'seen_at', now);
    },
    down: async (query) => {
      for (const column of ['agent', 'created_at', 'seen_at']) await query.removeColumn('sessions', column);
    },
  },
  {
    name: '0008-trail',
    up: async (query) => {
      await query.createTable('trail', {
        id: { type: DataTypes.BIGINT, primaryKey: true, autoIncrement: true },
        at: at(),
        ruleset_id: belongsTo('rulesets', { type: DataTypes.UUID, allowNull: true }),
        user_id: { type: DataTypes.UUID, allowNull: true },
        what: text(),
        about: json(),
      });
      await query.addIndex('trail', ['ruleset_id', 'at', 'id']);
    },
    down: async (query) => {
      await query.dropTable('trail');
    },
  },
  {
    name: '0009-edits-that-are-sent-again',
    up: async (query) => {
      await query.addColumn('revisions', 'key', { type: DataTypes.TEXT, allowNull: true });
    },
    down: async (query) => {
      await query.removeColumn('revisions', 'key');
    },
  },
  {
    name: '0010-rooms-of-guests',
    up: async (query) => {
      // In rooms that are there already, saved players play.
      await query.addColumn('rooms', 'players', { ...text(), defaultValue: 'saved' });
      await query.addColumn('snapshots', 'guests', { ...json(), defaultValue: {} });
    },
    down: async (query) => {
      await query.removeColumn('snapshots', 'guests');
      await query.removeColumn('rooms', 'players');
    },
  },
  {
    name: '0011-changes-of-rooms',
    up: async (query) => {
      await query.addColumn('snapshots', 'changes', { type: DataTypes.BLOB, allowNull: true });
    },
    down: async (query) => {
      await query.removeColumn('snapshots', 'changes');
    },
  },
];

/** Brings the database up to date. Returns the names of the steps that were taken. */
export async function migrate(sequelize: Sequelize): Promise<readonly string[]> {
  const umzug = new Umzug<QueryInterface>({
    migrations: STEPS.map(({ name, up, down }) => ({ name, up: ({ context }) => up(context), down: ({ context }) => down(context) })),
    context: sequelize.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize, modelName: 'migrations' }),
    logger: undefined,
  });
  return (await umzug.up()).map((step) => step.name);
}
