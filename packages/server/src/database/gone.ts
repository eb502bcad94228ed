import { ConnectionError, TimeoutError } from 'sequelize';

/** Whether an error says that the database can't be reached at present, rather than that something was wrong with a query. */
export function isDatabaseGone(error: unknown): boolean {
  if (error instanceof ConnectionError || error instanceof TimeoutError) return true;
  const { code, name, parent } = error as { code?: string; name?: string; parent?: unknown };
  if (name === 'SequelizeConnectionAcquireTimeoutError') return true;
  // 57P01 to 57P03: the server is shutting down, has crashed, or is starting up.
  if (typeof code === 'string' && /^(57P0[123]|ECONNREFUSED|ECONNRESET|EPIPE)$/.test(code)) return true;
  if (error instanceof Error && /Connection terminated|Client has encountered a connection error/.test(error.message)) return true;
  return parent !== undefined && parent !== error && isDatabaseGone(parent);
}
