// Keeps a process up: started again where it died, with a limit and a word. Node's own modules only.

/** How often within which time a process may die before it is left alone. */
export const MOST_DEATHS = 5;
const WITHIN_MS = 10 * 60_000;
/** How long is waited before the first new start; twice as long before each one that follows soon. */
const FIRST_WAIT_MS = 500;

/**
 * Starts a process, and starts it again whenever it dies after it has been ready once.
 * @param start gives a child process; it is called again for every new start, with a function to say that it is ready
 * @param say told what happened and what comes of it, in words
 * @param gaveUp told that the process is not started any more
 * @returns has it end for good, by a signal; resolves when it is gone
 */
export function keptUp({ start, say, gaveUp, firstWaitMs = FIRST_WAIT_MS, now = Date.now }) {
  const deaths = [];
  let child;
  let ready = false;
  let ending = false;
  let planned;

  const begin = () => {
    planned = undefined;
    child = start(() => (ready = true));
    child.once('exit', (code, signal) => {
      if (!ending) died(signal ?? code);
    });
  };
  const died = (how) => {
    if (!ready) {
      say(`The server ended (${how}) before it was ready.`);
      return gaveUp();
    }
    deaths.push(now());
    while (deaths[0] < now() - WITHIN_MS) deaths.shift();
    if (deaths.length > MOST_DEATHS) {
      say(`The server ended (${how}), ${deaths.length} times within ten minutes: it is not started again. What it said above tells why.`);
      return gaveUp();
    }
    const wait = firstWaitMs * 2 ** (deaths.length - 1);
    say(`The server ended (${how}). It is started again; who was there comes back by themselves.`);
    planned = setTimeout(begin, wait);
  };
  begin();

  return (signal = 'SIGTERM') =>
    new Promise((done) => {
      ending = true;
      clearTimeout(planned);
      if (child.exitCode !== null || child.signalCode !== null) return done();
      child.once('exit', () => done());
      child.kill(signal);
    });
}
