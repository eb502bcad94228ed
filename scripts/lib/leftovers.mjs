// Ends whatever one run of a script has started, and removes its folder. Nothing has to be asked for politely: all of it was
// made for that run alone.
import { existsSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';

/**
 * Every process of a run, and all that they start, carry the run's name in their environment. A run that is begun within another
 * is called after both, so that it ends with either.
 */
export const MARK = 'EMBER_RUN';
const DATABASE_PATIENCE_MS = 20_000;

const pause = (ms) => new Promise((done) => setTimeout(done, ms));
const read = (file) => {
  try {
    return readFileSync(file, 'utf8');
  } catch {
    return '';
  }
};

function alive(pid) {
  try {
    process.kill(pid, 0);
    // What has ended and waits for its parent to notice is no longer there.
    return !/^State:\s+[ZX]/m.test(read(`/proc/${pid}/status`));
  } catch (error) {
    return error.code === 'EPERM';
  }
}

function end(pid, signal) {
  try {
    process.kill(pid, signal);
  } catch {
    // It was quicker.
  }
}

/** The processes of a run: those that carry its mark, and browsers whose profile is below its folder. */
function processesOf(run, home) {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name) && Number(name) !== process.pid)
    .filter(
      (pid) =>
        read(`/proc/${pid}/environ`)
          .split('\0')
          .some((entry) => entry === `${MARK}=${run}` || entry.startsWith(`${MARK}=${run}/`)) ||
        read(`/proc/${pid}/cmdline`).includes(`--user-data-dir=${home}/`),
    )
    .map(Number);
}

/** The folders of all database clusters that were made below a folder: each has a note there of where it is. */
function* clustersBelow(folder) {
  for (const entry of existsSync(folder) ? readdirSync(folder, { withFileTypes: true }) : []) {
    if (entry.isDirectory() && (entry.name === 'tmp' || entry.name.startsWith('ember-'))) yield* clustersBelow(join(folder, entry.name));
    if (entry.name !== 'database.json') continue;
    const { data } = JSON.parse(read(join(folder, entry.name)) || '{}');
    if (data !== undefined) yield data;
  }
}

/** The databases of a run: where each is, and its first process, also where it has not yet said that it runs. */
function databasesOf(home) {
  const found = new Map();
  for (const data of clustersBelow(home)) found.set(data, Number(read(join(data, 'postmaster.pid')).split('\n')[0]));
  for (const pid of readdirSync('/proc').filter((name) => /^\d+$/.test(name))) {
    const [program, flag, data] = read(`/proc/${pid}/cmdline`).split('\0');
    if (/\/postgres$/.test(program) && flag === '-D' && (data?.startsWith(`${home}/`) || found.has(data))) found.set(data, Number(pid));
  }
  return found;
}

/**
 * Ends all that a run has started and removes what it has written. Databases are told to end at once, so that they give back
 * what they share; everything else is killed.
 * @param {string} run its name
 * @param {string} home its folder
 */
export async function clearAway(run, home) {
  // Who is just being started by one that is killed is found at the next look.
  for (let looks = 0; looks < 50; looks++) {
    const found = processesOf(run, home).filter((pid) => alive(pid) && read(`/proc/${pid}/comm`).trim() !== 'postgres');
    if (found.length === 0) break;
    for (const pid of found) end(pid, 'SIGKILL');
    await pause(50);
  }
  const databases = databasesOf(home);
  const running = () => [...databases.values()].filter((pid) => pid > 0 && alive(pid));
  for (const pid of running()) end(pid, 'SIGQUIT');
  for (const until = Date.now() + DATABASE_PATIENCE_MS; running().length > 0 && Date.now() < until;) await pause(50);
  for (const pid of running()) end(pid, 'SIGKILL');
  for (const data of databases.keys()) rmSync(data, { recursive: true, force: true });
  rmSync(home, { recursive: true, force: true, maxRetries: 10, retryDelay: 200 });
}
