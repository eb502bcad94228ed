import type { Logger } from 'pino';
import { QueryTypes, Sequelize, type Transaction } from 'sequelize';

/** The advisory lock by which a server says that it uses a database: “ember”, as a number. */
const IN_USE = 0x656d626572;
/** How often it is said again: the connection that says it may have been lost. */
const AGAIN_MS = 5000;

/**
 * Says that a server uses a database for as long as it does, by a lock that goes with its connection. Whoever would put
 * something else in the database's place has to wait, and the other way round.
 * @returns how to have it end
 */
export async function sayInUse(database: string, log: Logger): Promise<() => Promise<void>> {
  // One connection, that nothing else uses and that is never given up.
  const own = new Sequelize(database, { logging: false, retry: { max: 0 }, pool: { max: 1, idle: 0x7fffffff, evict: 0x7fffffff } });
  const say = () => own.query(`SELECT pg_advisory_lock_shared(${IN_USE})`);
  await say();
  let saying: Promise<unknown> = Promise.resolve();
  const timer = setInterval(() => {
    saying = say().catch((error: unknown) => log.debug({ err: error }, 'that the database is in use can’t be said'));
  }, AGAIN_MS);
  timer.unref();
  return async () => {
    clearInterval(timer);
    await saying;
    await own.close();
  };
}

/** Whether no server uses a database, nor begins to before the transaction is over. */
export async function keepUnused(sequelize: Sequelize, transaction: Transaction): Promise<boolean> {
  const [{ free }] = await sequelize.query<{ free: boolean }>(`SELECT pg_try_advisory_xact_lock(${IN_USE}) AS free`, {
    type: QueryTypes.SELECT,
    transaction,
  });
  return free;
}
