import { atOnce } from '../../../ruleset/parts.js';
import type { Problem } from '../../../ruleset/problem.js';
import type { Rules } from '../../../ruleset/rules.js';
import { checkChapter, type CheckEntry } from '../schema.js';
import { ChangedRules } from './changes.js';
import { Footprint } from './footprint.js';
import { Grounds } from './grounds.js';
import { Mistake } from './mistake.js';
import type { CheckResult, Outcome, RowResult, RunResult } from './result.js';
import { filled, placeInTable } from './rows.js';
import { runPlain, told, type Watcher } from './runner.js';
import { isOfRuleset } from './expectations.js';

/** Runs the checks of a ruleset. What they share is made once; what one of them does, no other sees. */
export class CheckSession {
  private readonly grounds: Grounds;

  /** @param changed what reads rules with something changed; the same for several sessions, where their rules follow from each other */
  constructor(
    readonly rules: Rules,
    private readonly changed = new ChangedRules(),
  ) {
    this.grounds = new Grounds(rules);
  }

  /**
   * Runs one check, with all its rows; as work in parts.
   * @param footprint takes what it runs through
   */
  *run(entry: CheckEntry, footprint = new Footprint()): Generator<void, CheckResult> {
    const { id, each } = entry;
    if (!each) return { id, ...(yield* this.runRow(entry, undefined, footprint)) };
    if (each.rows.length === 0)
      return { id, ok: false, ticks: 0, outcomes: [], mistakes: [{ path: 'each', message: 'The table has no rows: add one.' }] };
    const rows: RowResult[] = [];
    for (let row = 0; row < each.rows.length; row++) {
      const result = yield* this.runRow(entry, row, footprint);
      const label = each.columns.map((name, k) => `${name} ${each.rows[row][k] ?? '–'}`).join(', ');
      rows.push({ ...result, row, label });
    }
    const { row: _row, label: _label, ...shown } = rows.find(({ ok }) => !ok) ?? rows[0];
    return { id, ...shown, ok: rows.every(({ ok }) => ok), ticks: rows.reduce((sum, { ticks }) => sum + ticks, 0), rows };
  }

  /** Runs one check at once. */
  runNow(entry: CheckEntry, footprint?: Footprint): CheckResult {
    return atOnce(this.run(entry, footprint));
  }

  /** Runs a check once: as it is, or for one of its rows. */
  *runRow(entry: CheckEntry, row: number | undefined, footprint = new Footprint(), watcher?: Watcher): Generator<void, RunResult> {
    try {
      const own = filled(entry, row);
      const result = yield* this.runChanged(own, footprint, watcher);
      return row === undefined ? result : { ...result, outcomes: result.outcomes.map((outcome) => inTable(entry, outcome, row)) };
    } catch (error) {
      if (!(error instanceof Mistake)) throw error;
      return { ok: false, ticks: 0, outcomes: [], mistakes: [told(error)] };
    }
  }

  private *runChanged(entry: CheckEntry, footprint: Footprint, watcher?: Watcher): Generator<void, RunResult> {
    const { changes = [], stages } = entry;
    const refusals = stages.flatMap(({ then }, i) =>
      then.flatMap((test, k) => (isOfRuleset(test) ? [{ path: `stages/${i}/then/${k}`, saying: test.saying ?? '' }] : [])),
    );
    if (changes.length === 0 && refusals.length === 0) return yield* runPlain(this.grounds, entry, footprint, watcher);
    const { rules, problems } = this.changed.read(this.rules, changes);
    if (rules) {
      const accepted = refusals.map(({ path }) => broken(path, 'The ruleset is accepted.', 'refused', 'accepted'));
      const result = yield* runPlain(new Grounds(rules), entry, footprint, watcher);
      return { ...result, ok: result.ok && accepted.length === 0, outcomes: [...accepted, ...result.outcomes] };
    }
    const [first] = problems;
    if (refusals.length === 0) throw new Mistake('changes', `The ruleset is refused with this: ${first.message}`);
    const outcomes = refusals.map(({ path, saying }) => refused(path, saying, problems));
    return { ok: outcomes.every(({ holds }) => holds), ticks: 0, outcomes, mistakes: [] };
  }
}

function refused(path: string, saying: string, problems: readonly Problem[]): Outcome {
  const hit = problems.find(({ message }) => message.toLowerCase().includes(saying.toLowerCase()));
  if (hit) return { path, holds: true, t: 0, says: `“${hit.message}”` };
  return broken(path, `It is refused with other words: “${problems[0].message}”`, `a refusal that says “${saying}”`, problems[0].message);
}

const broken = (path: string, says: string, expected: string, found: string): Outcome => ({
  path,
  holds: false,
  t: 0,
  says: found,
  failure: { says, expected, found, who: '', cause: 0 },
});

function inTable(entry: CheckEntry, outcome: Outcome, row: number): Outcome {
  const { failure } = outcome;
  if (!failure?.right) return outcome;
  const { right, ...rest } = failure;
  const path = placeInTable(entry, right.path, row);
  return { ...outcome, failure: path === undefined ? rest : { ...rest, right: { ...right, path } } };
}

/** The checks of a ruleset, in its order. */
export const checksOf = (rules: Rules): readonly CheckEntry[] => checkChapter.of(rules);
