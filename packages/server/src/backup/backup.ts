import { randomBytes } from 'node:crypto';
import { chmodSync, existsSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { QueryTypes, Sequelize, Transaction } from 'sequelize';
import { BackupProblem, postgres } from './tools.js';

/** What one ruleset is made of, in the order in which it can be put back; rooms are no part of it. */
export const OF_A_RULESET = ['rulesets', 'revisions', 'players', 'set_aside'] as const;
/** A copy of one ruleset's rows is dumped as a schema of its own: PostgreSQL's dump takes whole tables. */
export const COPY_SCHEMA = 'ember_copy_';

/** How much of what a backup holds. */
export type Contents = Readonly<Record<'rulesets' | 'players' | 'rooms', number>>;

async function count(sequelize: Sequelize, tables: string, transaction?: Transaction): Promise<number> {
  const [row] = await sequelize.query<{ n: string }>(`SELECT count(*) AS n FROM ${tables}`, {
    type: QueryTypes.SELECT,
    ...(transaction && { transaction }),
  });
  return Number(row.n);
}

/** How much of what there is. */
export async function contentsOf(sequelize: Sequelize, transaction?: Transaction): Promise<Contents> {
  const [rulesets, players, rooms] = [
    await count(sequelize, 'rulesets', transaction),
    await count(sequelize, 'players', transaction),
    await count(sequelize, 'rooms', transaction),
  ];
  return { rulesets, players, rooms };
}

/** Works on a database, and lets go of it afterwards. @throws BackupProblem where it can't be reached */
export async function withDatabase<T>(database: string, work: (sequelize: Sequelize) => Promise<T>): Promise<T> {
  // Not the server's own connection: that one brings its models along, and there is one of those in a process.
  const sequelize = new Sequelize(database, { logging: false, retry: { max: 0 } });
  try {
    await sequelize.authenticate().catch((error: Error) => {
      throw new BackupProblem(`The database can’t be reached: ${error.message}. Start the server, or say by --database where it is.`);
    });
    return await work(sequelize);
  } finally {
    await sequelize.close();
  }
}

/**
 * Writes a backup of all there is, or of one ruleset with its history and its players, as PostgreSQL's own custom format. The
 * file is its owner's alone, and is there whole or not at all. Nobody is signed in by a backup: sessions are left out.
 * @param ruleset the id of the one ruleset; all there is where nothing is said
 * @throws BackupProblem
 */
export async function backup(database: string, file: string, ruleset?: string): Promise<Contents> {
  if (existsSync(file)) throw new BackupProblem(`${file} is there already: say another name, or move it away.`);
  const part = `${file}.part`;
  try {
    // Its owner's alone from its first byte on.
    writeFileSync(part, '', { mode: 0o600, flag: 'wx' });
    chmodSync(part, 0o600);
    const contents = await withDatabase(database, async (sequelize) => {
      const [{ there }] = await sequelize.query<{ there: boolean }>(`SELECT to_regclass('public.rulesets') IS NOT NULL AS there`, {
        type: QueryTypes.SELECT,
      });
      if (!there) throw new BackupProblem('This database holds nothing yet: no server has used it.');
      return ruleset === undefined ? all(sequelize, database, part) : one(sequelize, database, part, ruleset);
    });
    renameSync(part, file);
    return contents;
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'EEXIST')
      throw new BackupProblem(`${part} is there: another backup to it is under way, or was broken off. Move it away.`);
    rmSync(part, { force: true });
    throw (error as NodeJS.ErrnoException).syscall === undefined ? error : new BackupProblem(`${file}: ${(error as Error).message}`);
  }
}

const DUMP = ['--format=custom', '--no-owner', '--no-privileges'];

function all(sequelize: Sequelize, database: string, file: string): Promise<Contents> {
  // What is counted and what is dumped is the same moment.
  return sequelize.transaction({ isolationLevel: Transaction.ISOLATION_LEVELS.REPEATABLE_READ }, async (transaction) => {
    const [{ id }] = await sequelize.query<{ id: string }>('SELECT pg_export_snapshot() AS id', { type: QueryTypes.SELECT, transaction });
    const contents = await contentsOf(sequelize, transaction);
    await postgres(
      'pg_dump',
      [...DUMP, '--schema=public', '--exclude-table-data=public.sessions', `--snapshot=${id}`, `--file=${file}`],
      database,
    );
    return contents;
  });
}

async function one(sequelize: Sequelize, database: string, file: string, ruleset: string): Promise<Contents> {
  const copy = `${COPY_SCHEMA}${randomBytes(6).toString('hex')}`;
  try {
    await sequelize.transaction({ isolationLevel: Transaction.ISOLATION_LEVELS.REPEATABLE_READ }, async (transaction) => {
      await sequelize.query(`CREATE SCHEMA ${copy}`, { transaction });
      for (const table of OF_A_RULESET) {
        const column = table === 'rulesets' ? 'id' : 'ruleset_id';
        await sequelize.query(`CREATE TABLE ${copy}.${table} AS SELECT * FROM public.${table} WHERE ${column}::text = :ruleset`, {
          replacements: { ruleset },
          transaction,
        });
      }
    });
    const [rulesets, players] = [await count(sequelize, `${copy}.rulesets`), await count(sequelize, `${copy}.players`)];
    if (rulesets === 0) throw new BackupProblem(`There is no ruleset ${ruleset}: its id stands in its address, after /r/.`);
    await postgres('pg_dump', [...DUMP, `--schema=${copy}`, `--file=${file}`], database);
    return { rulesets, players, rooms: 0 };
  } finally {
    await sequelize.query(`DROP SCHEMA IF EXISTS ${copy} CASCADE`);
  }
}
