/**
 * How many steps a tick may take. A step is an event that is announced, an action on one actor, a number that is drawn, or a
 * reaction that is asked whether an event is meant for it; somebody who comes into the arena is {@link SPAWN_STEPS}, and
 * {@link ROWS_A_STEP} rows that are looked through are one. Counted,
 * not timed: the same tick is cut at the same place wherever it runs. A step takes some two microseconds, so a tick that is
 * cut has taken less than the 50 ms that a room at 20 ticks a second has for it. The largest of the demo's ticks takes some
 * hundreds.
 */
export const MOST_STEPS = 20_000;
/** What it takes to bring somebody into the arena, in steps. */
export const SPAWN_STEPS = 40;
/** What it takes to lay something down in it. */
export const LAY_STEPS = 4;

/** The place of the rule at work where it is the core itself. */
export const NO_RULE = -1;
/** So many rows are looked through for a step, such as bodies near by, walls, or what is on an actor; a power of two, so that parts of a step add up. */
export const ROWS_A_STEP = 32;

/** What a tick may still do, and which rule has taken how much of it. Empty between ticks: no part of what is stored. */
export class Budget {
  /** No bound outside a tick: what is worked out beside the game is its own affair. */
  private left = Infinity;
  private readonly taken: Float64Array;
  /** The rule at work, by its place among those of the ruleset; -1 where it is the core itself. */
  rule = NO_RULE;

  /** @param rules the rules that it can be, by chapter/id */
  constructor(private readonly rules: readonly string[]) {
    this.taken = new Float64Array(rules.length);
  }

  begin(): void {
    this.left = MOST_STEPS;
    this.taken.fill(0);
    this.rule = NO_RULE;
  }

  end(): void {
    this.left = Infinity;
  }

  /** Takes so many steps for the rule at work. Returns whether there are any left for more. */
  take(steps: number): boolean {
    this.left -= steps;
    if (this.rule >= 0) this.taken[this.rule] += steps;
    return this.left >= 0;
  }

  /** How many steps were taken so far in this tick. */
  get steps(): number {
    return this.left === Infinity ? 0 : MOST_STEPS - this.left;
  }

  /** The rule that has taken the most, and how much; of several the first by its name. -1 where none has taken any. */
  get largest(): { readonly rule: number; readonly steps: number } {
    let rule = -1;
    let steps = 0;
    this.taken.forEach((taken, i) => {
      if (taken > steps || (taken === steps && steps > 0 && this.rules[i] < this.rules[rule])) [rule, steps] = [i, taken];
    });
    return { rule, steps };
  }
}
