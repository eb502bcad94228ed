import { atOnce } from '../../ruleset/parts.js';
import type { Rules } from '../../ruleset/rules.js';
import type { Evidence } from '../../workbench/evidence.js';
import type { Workbench } from '../../workbench/workbench.js';
import { type Chain, Recorder } from './run/recorder.js';
import type { CheckResult, RunResult } from './run/result.js';
import { type Coverage, coverageOf, type EntryCoverage } from './coverage.js';
import { footprintsOf, resultsSoFar, runChecks } from './run/kept-results.js';
import { CheckSession } from './run/session.js';
import { checkChapter, type CheckEntry } from './schema.js';

/** What a check came to, all of it to be seen. */
export interface CheckStory {
  readonly result: RunResult;
  readonly evidence: Evidence;
  /** By the place of each sentence that does not hold: what led to that. */
  readonly chains: Readonly<Record<string, Chain>>;
}

/**
 * Runs a check once more and tells all of it.
 * @param row which row of its table; the first that fails, or the first, where nothing is said
 */
export function checkStory(rules: Rules, id: string, row?: number): CheckStory | undefined {
  const check = checkChapter.find(rules, id);
  return check && storyOf(rules, check, row);
}

/** The same of a check that stands in no chapter. */
export function storyOf(rules: Rules, check: CheckEntry, row?: number): CheckStory {
  const session = new CheckSession(rules);
  const recorder = new Recorder(rules);
  const failing = check.each && row === undefined ? atOnce(session.run(check)).rows?.find(({ ok }) => !ok)?.row : row;
  const result = atOnce(session.runRow(check, check.each && (failing ?? 0), undefined, recorder));
  const chains = result.outcomes.flatMap((outcome) => (outcome.holds ? [] : [[outcome.path, recorder.chainOf(outcome)] as const]));
  return { result, evidence: recorder.evidence(), chains: Object.fromEntries(chains) };
}

/** How far the checks have run, once for each time that they have. */
const known = new WeakMap<object, Coverage>();

function coverage(rules: Rules): Coverage {
  const footprints = footprintsOf(rules);
  const before = known.get(footprints);
  if (before) return before;
  const now = coverageOf(rules, footprints);
  known.set(footprints, now);
  return now;
}

/** How far the checks have run through each chapter, as they were last run. */
const chapters = (rules: Rules): Coverage['chapters'] => coverage(rules).chapters;

/** How far they have run through one entry; undefined for one that does not exist. */
const ofEntry = (rules: Rules, chapter: string, id: string): EntryCoverage | undefined => coverage(rules).entries[`${chapter}/${id}`];

export const workbench = {
  questions: { story: checkStory, soFar: resultsSoFar, coverage: chapters, coverageOfEntry: ofEntry },
  background: { results: (rules: Rules): Generator<void, readonly CheckResult[]> => runChecks(rules) },
} satisfies Workbench;
export type CheckQuestions = (typeof workbench)['questions'];
export type CheckBackground = (typeof workbench)['background'];
