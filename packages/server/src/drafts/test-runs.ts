import {
  type ChapterCoverage,
  type CheckEntry,
  type CheckRan,
  type CheckResult,
  checksOf,
  coverageOf,
  type Found,
  type HuntMistakes,
  huntsOf,
  isCalled,
  type KeptResults,
  type Rules,
  Search,
} from '@eager-ember/core';
import { Impossible } from '../errors.js';

/** What is run of a ruleset: its checks, or its hunts. */
export interface RunAsked {
  readonly what: 'checks' | 'hunts';
  /** The id of one, or words of labels or groups; all where nothing is said. */
  readonly only?: string;
  /** Another seed than their own. */
  readonly seed?: number;
  /** The results say how far the checks have run through the ruleset. */
  readonly coverage?: boolean;
}

/** What the checks of a ruleset came to. */
export interface ChecksOutcome {
  /** All that were meant have run, and hold. */
  readonly ok: boolean;
  readonly ticks: number;
  readonly checks: readonly (CheckResult & { readonly label: string })[];
  /** The ids of those for which there was no time. */
  readonly left: readonly string[];
  readonly coverage?: readonly ChapterCoverage[];
}

/** What a hunt came to. */
export interface HuntOutcome {
  readonly id: string;
  readonly label: string;
  readonly ok: boolean;
  readonly mistakes: HuntMistakes;
  readonly stories: number;
  readonly ticks: number;
  readonly found?: Found;
}
export interface HuntsOutcome {
  readonly ok: boolean;
  readonly hunts: readonly HuntOutcome[];
}
export type RunOutcome = ChecksOutcome | HuntsOutcome;

/** How far a run has come: there is nothing left to do, it could go on, or it should before it is left. */
export type RunState = 'over' | 'open' | 'unfinished';

/** Checks or hunts that are being run, a part at a time. */
export interface TestRun {
  /** How many there are to run. */
  readonly count: number;
  /** Goes on for about so many milliseconds. */
  go(ms: number): RunState;
  /** What it has come to by now. */
  outcome(): RunOutcome;
}

/** Stories that are tried before the time is looked at again. */
const STORIES = 2;

/**
 * Begins to run what is asked for.
 * @param kept the results that earlier runs left, of the ruleset that these rules are a revision of
 * @throws Impossible where there is nothing of the kind
 */
export function beginRun(rules: Rules, asked: RunAsked, kept: () => KeptResults): TestRun {
  const { what, only } = asked;
  const run = what === 'checks' ? checksRun(rules, asked, kept()) : huntsRun(rules, asked);
  if (run.count > 0) return run;
  const why =
    only === undefined
      ? `The ruleset has no ${what}.`
      : `The ruleset has no ${what.slice(0, -1)} that is called ${only}, or that has this in its label or group.`;
  throw new Impossible('There is nothing to run', why);
}

function checksRun(rules: Rules, { only, coverage }: RunAsked, kept: KeptResults): TestRun {
  const isMeant = (check: CheckEntry) => isCalled(check, only);
  const ran = new Map<CheckEntry, CheckRan>();
  const parts = kept.run(rules, { isMeant, ran: (one) => ran.set(one.check, one) });
  const meant = checksOf(rules).filter(isMeant);
  return {
    count: meant.length,
    go: (ms) => {
      const until = performance.now() + ms;
      for (;;) {
        if (parts.next().done) return 'over';
        if (performance.now() >= until) return 'open';
      }
    },
    outcome: () => {
      const done = meant.flatMap((check) => ran.get(check) ?? []);
      const left = meant.filter((check) => !ran.has(check)).map(({ id }) => id);
      return {
        ok: left.length === 0 && done.every(({ result }) => result.ok),
        ticks: done.reduce((sum, { result }) => sum + result.ticks, 0),
        checks: done.map(({ check: { label }, result }) => ({ label, ...result })),
        left,
        ...(coverage && {
          coverage: coverageOf(rules, new Map(done.map(({ check, footprint }) => [check, footprint] as const))).chapters,
        }),
      };
    },
  };
}

/** Hunts in turn: each until it has found something. One that has stays at hand until it has made its story short. */
function huntsRun(rules: Rules, { only, seed }: RunAsked): TestRun {
  const all = huntsOf(rules)
    .filter((hunt) => isCalled(hunt, only))
    .map((hunt) => {
      const search = new Search(rules, seed === undefined ? hunt : { ...hunt, seed });
      return { hunt, search, next: 0, stories: 0, ticks: 0, isShrinking: false };
    });
  const open = () => all.filter(({ search }) => search.mistakes.length === 0 && !search.found);
  let turn = 0;
  return {
    count: all.length,
    go: (ms) => {
      const until = performance.now() + ms;
      for (let list = open(); list.length > 0; list = open()) {
        if (performance.now() >= until) return list.some(({ isShrinking }) => isShrinking) ? 'unfinished' : 'open';
        const one = list.find(({ isShrinking }) => isShrinking) ?? list[turn++ % list.length];
        const { stories, ticks, shrinking } = one.search.go(one.next, STORIES);
        one.next += STORIES;
        one.ticks += ticks;
        if (!one.isShrinking) one.stories += stories;
        one.isShrinking = shrinking !== undefined;
      }
      return 'over';
    },
    outcome: () => {
      const hunts = all.map(({ hunt: { id, label }, search: { mistakes, found }, stories, ticks, isShrinking }): HuntOutcome => ({
        id,
        label,
        ok: mistakes.length === 0 && !found && !isShrinking,
        mistakes,
        stories,
        ticks,
        ...(found && { found }),
      }));
      return { ok: hunts.every(({ ok }) => ok), hunts };
    },
  };
}
