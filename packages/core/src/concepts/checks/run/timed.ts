import type { Rules } from '../../../ruleset/rules.js';
import type { GameEvent } from '../../../world/events.js';
import type { AmountTest, EventTest } from '../schema.js';
import { Mistake } from './mistake.js';
import type { Story } from './story.js';
import { asTime, secondsOf, ticksIn } from './time-words.js';
import type { Test, Verdict } from './verdicts.js';

const SLACK = 1e-9;

/** A test that has some time to come true in, and may not come true too early. @throws Mistake where it says the one without the other */
export function timed(rules: Rules, own: Test, { within, notBefore }: Pick<AmountTest, 'within' | 'notBefore'>): Test {
  const test = { ...own, within: within === undefined ? 0 : ticksIn(rules, within) };
  if (notBefore === undefined) return test;
  if (within === undefined) throw new Mistake(`${own.path}/notBefore`, 'Say as well within what time it comes true.');
  const least = secondsOf(notBefore);
  let began = 0;
  const settle = (story: Story): Verdict => {
    const verdict = own.look(story);
    const after = Math.round((story.at() - began) * 1000) / 1000;
    if (!verdict.holds || after >= least - SLACK) return verdict;
    const found = after === 0 ? 'at once' : `after ${after} s`;
    const expected = `not before ${asTime(notBefore)}`;
    return {
      holds: false,
      says: found,
      failure: { says: `It came true ${found}, and should not have before ${asTime(notBefore)}.`, expected, found, who: '', cause: 0 },
    };
  };
  return { ...test, begins: (story) => void (began = story.at()), settle };
}

/** When an event has to happen to count. */
export interface Moment {
  /** `at 1.5 s, give or take 0.1 s` */
  readonly words: string;
  /** The last tick, counted from the beginning, in which it may. */
  readonly until: number;
  isIn(story: Story, event: GameEvent): boolean;
}

/** @throws Mistake where what is said of its time makes no sense together */
export function momentOf(rules: Rules, { at, giveOrTake, within }: EventTest, path: string): Moment | undefined {
  if (at === undefined) {
    if (giveOrTake !== undefined) throw new Mistake(`${path}/giveOrTake`, 'Say as well at what time it happens.');
    return undefined;
  }
  if (within !== undefined) throw new Mistake(`${path}/within`, 'It happens at a time, or within one: say one of the two.');
  const [when, off] = [secondsOf(at), giveOrTake === undefined ? 0 : secondsOf(giveOrTake)];
  // A time between two ticks is that of the nearer one.
  const most = Math.max(off, 0.5 / rules.tickRate);
  return {
    words: `at ${asTime(at)}${giveOrTake === undefined ? '' : `, give or take ${asTime(giveOrTake)}`}`,
    until: ticksIn(rules, when + off),
    isIn: (story, event) => Math.abs(story.when(event) - when) <= most + SLACK,
  };
}
