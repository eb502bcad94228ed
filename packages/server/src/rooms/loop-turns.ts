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
}
