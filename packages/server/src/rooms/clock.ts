/**
 * Calls `tick` a fixed number of times a second and catches up after a delay, by at most a few ticks: a machine that
 * slept does not owe the hours it slept through.
 */
export class Clock {
  private timer: NodeJS.Timeout | undefined;
  private due = 0;
  private static readonly MOST_AT_ONCE = 5;
  private static readonly LONGEST_WAIT_MS = 60_000;

  constructor(
    private readonly perSecond: () => number,
    private readonly tick: () => void,
    /** Told how late each tick came, in milliseconds. */
    private readonly late: (ms: number) => void = () => undefined,
  ) {}

  get running(): boolean {
    return this.timer !== undefined;
  }

  start(): void {
    if (this.timer) return;
    this.due = performance.now() + this.interval;
    this.plan();
  }

  /** Milliseconds from one tick to the next; Infinity while it stands still. */
  private get interval(): number {
    return 1000 / this.perSecond();
  }

  /** The rate has changed: the next tick is due by the new one. */
  repace(): void {
    if (!this.timer) return;
    clearTimeout(this.timer);
    this.due = performance.now() + this.interval;
    this.plan();
  }

  stop(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
  }

  private plan(): void {
    this.timer = setTimeout(() => this.run(), Math.min(Clock.LONGEST_WAIT_MS, Math.max(0, this.due - performance.now())));
  }

  private run(): void {
    // A tick may stop the clock: what it was late by is then not made up for.
    for (let n = 0; this.timer && n < Clock.MOST_AT_ONCE && performance.now() >= this.due; n++) {
      this.late(performance.now() - this.due);
      this.due += this.interval;
      this.tick();
    }
    if (this.due < performance.now()) this.due = performance.now();
    if (this.timer) this.plan();
  }
}
