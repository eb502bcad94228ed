import type { Time, Waiting } from '../rooms/time.js';

/** Time that stands still until a test has it pass. */
export class TestTime implements Time {
  private passed = 0;
  private atWork = 0;
  private readonly waiting = new Set<{ at: number; readonly work: () => void }>();

  now(): number {
    return this.passed;
  }

  worked(): number {
    return this.atWork;
  }

  after(ms: number, work: () => void): Waiting {
    const one = { at: this.passed + ms, work };
    this.waiting.add(one);
    return { cancel: () => void this.waiting.delete(one) };
  }

  /** Has so many milliseconds pass, and does what falls due, each at its moment. */
  pass(ms: number): void {
    const until = this.passed + ms;
    for (;;) {
      const [next] = [...this.waiting].filter(({ at }) => at <= until).sort((a, b) => a.at - b.at);
      if (!next) break;
      this.waiting.delete(next);
      this.passed = Math.max(this.passed, next.at);
      next.work();
    }
    this.passed = Math.max(this.passed, until);
  }

  /**
   * Has so many milliseconds go by while something is being done: nothing else is done meanwhile.
   * @param worked for how many of them the processor worked for it; where less, it had something else to do as well
   */
  take(ms: number, worked = ms): void {
    this.passed += ms;
    this.atWork += worked;
  }

  /** Has the clock go back, as on a machine whose time is put right: what was going to be done still waits as long as it did. */
  goBack(ms: number): void {
    this.passed -= ms;
    for (const one of this.waiting) one.at -= ms;
  }

  /** Has so many milliseconds pass in one go, as on a machine that was held up: whatever fell due meanwhile is done late. */
  skip(ms: number): void {
    this.passed += ms;
    this.pass(0);
  }
}
