import type { Time } from './time.js';

/** How much of a core a room may take over time. */
const SHARE = 0.3;
/** How many milliseconds of work it may take at once, out of what it has not taken before. */
const SAVED_UP_MS = 300;
/** How long a room may be held back to less than half of its rate; after that it is to stand still. */
export const HELD_BACK_MS = 20_000;

/**
 * A room's share of the processor that it has together with others, as a bucket that fills with time and is emptied by work:
 * a room that has taken more than its share waits until it is even, so that others keep their time.
 */
export class Share {
  private left = SAVED_UP_MS;
  private counted: number;
  /** Since when it has run at less than half of its rate; undefined where it has not. */
  private heldBackSince: number | undefined;

  constructor(private readonly time: Time) {
    this.counted = time.now();
  }

  private fill(): void {
    const now = this.time.now();
    this.left = Math.min(SAVED_UP_MS, this.left + Math.max(0, now - this.counted) * SHARE);
    this.counted = now;
  }

  /**
   * Takes what a tick has needed out of the share.
   * @param ms how long it has worked
   * @param intervalMs how long it is from one tick to the next at the room's own rate
   */
  take(ms: number, intervalMs: number): void {
    this.fill();
    this.left -= ms;
    if (this.rest <= intervalMs) this.heldBackSince = undefined;
    else this.heldBackSince ??= this.counted;
  }

  /** How many milliseconds it has to wait until it may work again. */
  get rest(): number {
    this.fill();
    return this.left >= 0 ? 0 : -this.left / SHARE;
  }

  /** Whether less than half is left of what it may take at once. */
  get isScant(): boolean {
    this.fill();
    return this.left < SAVED_UP_MS / 2;
  }

  /** Whether it runs at less than half of its rate, and has to be told so. */
  get heldBack(): boolean {
    return this.heldBackSince !== undefined;
  }

  /** Whether that has been so for too long. */
  get exhausted(): boolean {
    return this.heldBackSince !== undefined && this.time.now() - this.heldBackSince > HELD_BACK_MS;
  }

  /** Begins anew, after the room has stood still. */
  forgive(): void {
    this.left = SAVED_UP_MS;
    this.counted = this.time.now();
    this.heldBackSince = undefined;
  }
}
