import { existsSync } from 'node:fs';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { migrate } from '../database/migrations.js';
import { keepUnused } from '../database/presence.js';
import { type Contents, contentsOf, COPY_SCHEMA, OF_A_RULESET, withDatabase } from './backup.js';
import { BackupProblem, postgres } from './tools.js';

export interface RestoreOptions {
  /** A whole backup takes the place of all there is. */
  readonly replace?: boolean;
  /** One ruleset goes beside the one of its id that is there, under an id of its own. */
  readonly copy?: boolean;
}

const RESTORE = ['--no-owner', '--no-privileges', '--exit-on-error', '--single-transaction'];
/** Where what was there waits until what takes its place is there. */
const ASIDE = 'ember_before_restore';

/**
 * Puts a backup into a database: all of it or nothing. A whole one goes into an empty database, or takes the place of all
 * there is; one ruleset goes beside the others. What an older version wrote is brought up to date.
 * @throws BackupProblem
 */
export async function restore(database: string, file: string, { replace = false, copy = false }: RestoreOptions = {}): Promise<Contents> {
  if (!existsSync(file)) throw new BackupProblem(`There is no file ${file}.`);
  const listed = await postgres('pg_restore', ['--list', file]).catch(() => {
    throw new BackupProblem(`${file} is no backup, or was cut short.`);
  });
  const schema = new RegExp(`SCHEMA - (${COPY_SCHEMA}[0-9a-f]+)`).exec(listed)?.[1];
  if (schema === undefined && !listed.includes('TABLE public rulesets')) throw new BackupProblem(`${file} is a backup of something else.`);
  if (schema === undefined && copy) throw new BackupProblem(`${file} holds all there was, and --copy is for a backup of one ruleset.`);
  if (schema !== undefined && replace)
    throw new BackupProblem(`${file} holds one ruleset, and --replace is for a backup of all there was.`);
  return withDatabase(database, (sequelize) =>
    schema === undefined ? putAll(sequelize, database, file, replace) : putOne(sequelize, database, file, schema, copy),
  );
}

const isThere = async (sequelize: Sequelize, query: string, transaction?: Transaction): Promise<boolean> =>
  (await sequelize.query(query, { type: QueryTypes.SELECT, ...(transaction && { transaction }) })).length > 0;

async function putAll(sequelize: Sequelize, database: string, file: string, replace: boolean): Promise<Contents> {
  const isEmpty = !(await isThere(sequelize, `SELECT 1 FROM information_schema.tables WHERE table_schema = 'public'`));
  if (!isEmpty && !replace)
    throw new BackupProblem(
      'This database is not empty. Make an empty one and say it by --database, or have all there is go by --replace.',
    );
  if (await isThere(sequelize, `SELECT 1 FROM pg_namespace WHERE nspname = '${ASIDE}'`))
    throw new BackupProblem(
      `An earlier restore was broken off: what was there before it is in the schema ${ASIDE}. Rename or drop it first.`,
    );
  return sequelize.transaction(async (transaction) => {
    if (!(await keepUnused(sequelize, transaction))) throw new BackupProblem('A server uses this database: stop it first.');
    return inPlaceOf(sequelize, database, file);
  });
}

/** Until what takes its place is there whole, what was there is only out of the way. */
async function inPlaceOf(sequelize: Sequelize, database: string, file: string): Promise<Contents> {
  await sequelize.query(`ALTER SCHEMA public RENAME TO ${ASIDE}; CREATE SCHEMA public`);
  try {
    await postgres('pg_restore', [...RESTORE, '--schema=public', '--dbname', nameOf(database), file], database);
    await migrate(sequelize);
    const contents = await contentsOf(sequelize);
    await sequelize.query(`DROP SCHEMA ${ASIDE} CASCADE`);
    return contents;
  } catch (error) {
    await sequelize.query(`DROP SCHEMA public CASCADE; ALTER SCHEMA ${ASIDE} RENAME TO public`);
    throw error;
  }
}

const nameOf = (database: string): string => decodeURIComponent(new URL(database).pathname.slice(1));

async function putOne(sequelize: Sequelize, database: string, file: string, from: string, copy: boolean): Promise<Contents> {
  await migrate(sequelize);
  try {
    await postgres('pg_restore', [...RESTORE, '--dbname', nameOf(database), file], database);
    return await sequelize.transaction(async (transaction) => {
      const known = `SELECT name FROM public.rulesets WHERE id IN (SELECT id FROM ${from}.rulesets)`;
      const [there] = await sequelize.query<{ name: string }>(known, { type: QueryTypes.SELECT, transaction });
      if (there && !copy) throw new BackupProblem(`${there.name} is there already. Put it back beside that one by --copy.`);
      if (copy) await giveNewId(sequelize, from, transaction);
      await followAuthor(sequelize, from, transaction);
      for (const table of OF_A_RULESET) await moveRows(sequelize, from, table, transaction);
      const [{ players }] = await sequelize.query<{ players: string }>(`SELECT count(*) AS players FROM ${from}.players`, {
        type: QueryTypes.SELECT,
        transaction,
      });
      return { rulesets: 1, players: Number(players), rooms: 0 };
    });
  } finally {
    await sequelize.query(`DROP SCHEMA IF EXISTS ${from} CASCADE`);
  }
}

async function giveNewId(sequelize: Sequelize, from: string, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `CREATE TEMPORARY TABLE new_id ON COMMIT DROP AS SELECT gen_random_uuid() AS id;
     UPDATE ${from}.rulesets SET id = (SELECT id FROM new_id);
     ${OF_A_RULESET.slice(1)
       .map((table) => `UPDATE ${from}.${table} SET ruleset_id = (SELECT id FROM new_id)`)
       .join('; ')};
     UPDATE ${from}.set_aside SET id = gen_random_uuid()`,
    { transaction },
  );
}

/** Edits were by the author of the database that the backup is from; here they are by the author of this one. */
async function followAuthor(sequelize: Sequelize, from: string, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `INSERT INTO public.users (id, name) SELECT gen_random_uuid(), 'author' WHERE NOT EXISTS (SELECT 1 FROM public.users WHERE name = 'author');
     UPDATE ${from}.revisions SET user_id = (SELECT id FROM public.users WHERE name = 'author' LIMIT 1)`,
    { transaction },
  );
}

/** Moves the columns that both know: an older backup lacks what came since. */
async function moveRows(sequelize: Sequelize, from: string, table: string, transaction: Transaction): Promise<void> {
  const columns = await sequelize.query<{ name: string }>(
    `SELECT quote_ident(a.column_name) AS name FROM information_schema.columns a JOIN information_schema.columns b
       ON a.column_name = b.column_name AND a.table_name = b.table_name
     WHERE a.table_schema = :from AND b.table_schema = 'public' AND a.table_name = :table`,
    { replacements: { from, table }, type: QueryTypes.SELECT, transaction },
  );
  const names = columns.map(({ name }) => name).join(', ');
  await sequelize.query(`INSERT INTO public.${table} (${names}) SELECT ${names} FROM ${from}.${table}`, { transaction });
}
