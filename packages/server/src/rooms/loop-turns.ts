/** How long a turn lasts, if one part of the work does not take longer. */
const TURN_MS = 5;

/**
 * Has work that takes long be done in a turn of the event loop of its own, one piece after the other. Much that becomes ready
 * at the same moment would otherwise run in one go, and no room would tick until all of it is done.
 */
export class LoopTurns {
  private last: Promise<void> = Promise.resolve();

  /** Resolves when it is one's turn: what follows at once, up to the next await, has it. */
  next(): Promise<void> {
    this.last = this.last.then(() => new Promise((done) => setImmediate(done)));
    return this.last;
  }

  /** Does a piece of work that comes in parts, in as many turns as it takes. */
  async through<T>(parts: Generator<void, T>): Promise<T> {
    for (;;) {
      await this.next();
      const until = performance.now() + TURN_MS;
      do {
        const { done, value } = parts.next();
        if (done) return value;
      } while (performance.now() < until);
    }
  }
}
