import type { GameEvent } from '../../../world/events.js';
import type { EventTest, Who } from '../schema.js';
import type { Asked } from './formulas.js';
import type { Failure } from './result.js';
import type { Story } from './story.js';

/** How something looks at a moment. */
export interface Verdict {
  readonly holds: boolean;
  readonly says: string;
  readonly failure?: Failure;
}

/** Attributes that are worth a line of their own. */
export interface Watched {
  readonly of: Who | undefined;
  readonly attributes: readonly string[];
}
export const NOTHING_WATCHED: Watched = { of: undefined, attributes: [] };
export const watching = (of: Who | undefined, ...asked: readonly Asked[]): Watched => ({
  of,
  attributes: asked.flatMap(({ reads }) => reads.map(({ id }) => id)),
});

/** Something that is expected, ready to be looked at. */
export interface Test {
  readonly path: string;
  /** Ticks in which it may still come true. */
  readonly within: number;
  /** Ticks from the beginning of the check after which it can't come true any more, where that is said instead. */
  readonly until?: number;
  /** It is settled only when that time is over, not as soon as it is true. */
  readonly waits: boolean;
  /** The attributes whose course it is about, and of whom. */
  readonly watches: Watched;
  /** Hears of what happens. */
  readonly hear?: (story: Story, event: GameEvent) => void;
  readonly look: (story: Story) => Verdict;
  /** Its turn has come: the steps before it are through. */
  readonly begins?: (story: Story) => void;
  /** Looks when it is settled, where that is another matter than whether it is so by now. */
  readonly settle?: (story: Story) => Verdict;
  /** Whether it is still to be seen, past its time, when what it is about comes about. */
  readonly isLate?: (story: Story) => boolean;
  /** Looks once more, when all is over. */
  readonly end?: (story: Story) => Verdict;
  /** Ticks that it has to see more of before it is over. */
  readonly waitsFor?: (story: Story) => number;
}

/** That nobody is there who is meant, as a verdict. */
export function nobodyMeant(story: Story, of: Who | undefined, expected: string, who = ''): Verdict {
  const says = story.nobody(of);
  return { holds: false, says, failure: { says, expected, found: 'nobody', who, cause: 0 } };
}

/** Whether something happened as often as is said. */
export const oftenEnough = ({ count, times }: Pick<EventTest, 'count' | 'times'>, found: number): boolean =>
  count === 'exactly' ? found === times : count === 'atLeast' ? found >= times : found <= times;

export const timesWords = (times: number) => (times === 0 ? 'never' : times === 1 ? 'once' : times === 2 ? 'twice' : `${times} times`);

/** How often something is expected, in words. */
export const countWords = ({ count, times }: Pick<EventTest, 'count' | 'times'>): string =>
  times === 0 ? 'never' : `${count === 'exactly' ? '' : count === 'atLeast' ? 'at least ' : 'at most '}${timesWords(times)}`;

/** With a capital. */
export const sentence = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
