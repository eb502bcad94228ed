import { machineTime, type Time, type Waiting } from './time.js';

/**
 * Calls `tick` a fixed number of times a second and catches up after a delay, by at most a few ticks: a machine that
 * slept does not owe the hours it slept through.
 */
export class Clock {
  private next: Waiting | undefined;
  private due = 0;
  private static readonly MOST_AT_ONCE = 5;
  private static readonly LONGEST_WAIT_MS = 60_000;
  /** Ticks that are made up for take no longer than this at a time: others wait meanwhile. */
  private static readonly LONGEST_TURN_MS = 25;

  constructor(
    private readonly perSecond: () => number,
    private readonly tick: () => void,
    /** Told how late each tick came, in milliseconds. */
    private readonly late: (ms: number) => void = () => undefined,
    private readonly time: Time = machineTime,
    /** Says for how many milliseconds it has to rest, after each tick. */
    private readonly rest: () => number = () => 0,
  ) {}

  get running(): boolean {
    return this.next !== undefined;
  }

  start(): void {
    if (this.next) return;
    this.due = this.time.now() + this.interval;
    this.plan();
  }

  /** Milliseconds from one tick to the next; Infinity while it stands still. */
  private get interval(): number {
    return 1000 / this.perSecond();
  }

  /** The rate has changed: the next tick is due by the new one. */
  repace(): void {
    if (!this.next) return;
    this.next.cancel();
    this.due = this.time.now() + this.interval;
    this.plan();
  }

  stop(): void {
    this.next?.cancel();
    this.next = undefined;
  }

  private plan(): void {
    const wait = Math.min(Clock.LONGEST_WAIT_MS, Math.max(0, this.due - this.time.now()));
    this.next = this.time.after(wait, () => this.run());
  }

  private run(): void {
    // A tick may stop the clock: what it was late by is then not made up for.
    const began = this.time.now();
    let rest = 0;
    for (let n = 0; this.next && n < Clock.MOST_AT_ONCE && this.time.now() >= this.due; n++) {
      this.late(this.time.now() - this.due);
      this.due += this.interval;
      this.tick();
      rest = this.rest();
      if (rest > 0 || this.time.now() - began > Clock.LONGEST_TURN_MS) break;
    }
    const now = this.time.now();
    // A machine whose time went back does not make the room wait until it has come as far again.
    this.due = Math.min(Math.max(this.due, now), now + this.interval);
    if (rest > 0) this.due = Math.max(this.due, now + rest);
    if (this.next) this.plan();
  }
}
