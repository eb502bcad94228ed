import { atOnce } from '../../ruleset/parts.js';
import type { Rules } from '../../ruleset/rules.js';
import type { Evidence } from '../../workbench/evidence.js';
import type { Workbench } from '../../workbench/workbench.js';
import { type Chain, Recorder } from './run/recorder.js';
import type { CheckResult, RunResult } from './run/result.js';
import { runChecks } from './run/kept-results.js';
import { CheckSession } from './run/session.js';
import { checkChapter } from './schema.js';

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
  if (!check) return undefined;
  const session = new CheckSession(rules);
  const recorder = new Recorder(rules);
  const failing = check.each && row === undefined ? atOnce(session.run(check)).rows?.find(({ ok }) => !ok)?.row : row;
  const result = atOnce(session.runRow(check, check.each && (failing ?? 0), undefined, recorder));
  const chains = result.outcomes.flatMap((outcome) => (outcome.holds ? [] : [[outcome.path, recorder.chainOf(outcome)] as const]));
  return { result, evidence: recorder.evidence(), chains: Object.fromEntries(chains) };
}

export const workbench = {
  questions: { story: checkStory },
  background: { results: (rules: Rules): Generator<void, readonly CheckResult[]> => runChecks(rules) },
} satisfies Workbench;
export type CheckQuestions = (typeof workbench)['questions'];
export type CheckBackground = (typeof workbench)['background'];
