import { spawn } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

/** Where Debian keeps PostgreSQL's programs, by version: most of them are not on the PATH. */
const DEBIAN = '/usr/lib/postgresql';

/** What keeps a backup from being made or put back, in words that say what to do. */
export class BackupProblem extends Error {}

function newestOf(program: string): string {
  const versions = existsSync(DEBIAN) ? readdirSync(DEBIAN).filter((version) => existsSync(join(DEBIAN, version, 'bin', program))) : [];
  const [newest] = versions.sort((a, b) => Number(b) - Number(a));
  return newest === undefined ? program : join(DEBIAN, newest, 'bin', program);
}

/** How PostgreSQL's programs find a database: by their environment, so that no password stands in a list of processes. */
function environmentOf(database: string): Record<string, string> {
  const { hostname, port, username, password, pathname, searchParams } = new URL(database);
  const ssl = searchParams.get('sslmode');
  return {
    PGHOST: decodeURIComponent(hostname),
    PGPORT: port || '5432',
    PGUSER: decodeURIComponent(username),
    PGPASSWORD: decodeURIComponent(password),
    PGDATABASE: decodeURIComponent(pathname.slice(1)),
    ...(ssl !== null && { PGSSLMODE: ssl }),
  };
}

/**
 * Runs one of PostgreSQL's own programs against a database, and returns what it prints.
 * @throws BackupProblem with what it complains of, or where it is missing
 */
export function postgres(program: 'pg_dump' | 'pg_restore', args: readonly string[], database?: string): Promise<string> {
  return new Promise((done, fail) => {
    const env = { ...process.env, ...(database !== undefined && environmentOf(database)) };
    const child = spawn(newestOf(program), args, { env, stdio: ['ignore', 'pipe', 'pipe'] });
    let [said, complained] = ['', ''];
    child.stdout.setEncoding('utf8').on('data', (part: string) => (said += part));
    child.stderr.setEncoding('utf8').on('data', (part: string) => (complained += part));
    child.on('error', () => fail(new BackupProblem(`PostgreSQL’s ${program} is missing. Install PostgreSQL’s client programs.`)));
    child.on('close', (code) =>
      code === 0 ? done(said) : fail(new BackupProblem(`${program}: ${complained.trim() || `ended with ${code}`}`)),
    );
  });
}
