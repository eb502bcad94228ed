import { onlyTries } from '../../../analysis/collect.js';
import { registry } from '../../../ruleset/registry.js';
import { type Answers, answersOf } from '../../../ruleset/questions.js';
import type { ChapterEntry, Rules } from '../../../ruleset/rules.js';
import { type CheckEntry, MOST_RUN } from '../schema.js';
import { ChangedRules } from './changes.js';
import { type Key, keyOf, playerKind, Reach, waitsFor } from './reach.js';
import { Footprint } from './footprint.js';
import type { CheckResult } from './result.js';
import { CheckSession, checksOf } from './session.js';

/** What became of a check. */
export interface CheckRan {
  readonly check: CheckEntry;
  readonly result: CheckResult;
  /** What it has run through. */
  readonly footprint: Footprint;
}

interface Kept extends CheckRan {
  /** The entries that it reached. */
  readonly reached: ReadonlySet<Key>;
}

/** Which checks are run, and who hears of each as soon as it has been. */
export interface ChecksWanted {
  /** All of them where nothing is said. */
  readonly isMeant?: (check: CheckEntry) => boolean;
  readonly ran?: (one: CheckRan) => void;
}

/**
 * The results of checks, kept from one edit to the next.
 * @public
 */
export class KeptResults {
  private rules: Rules | undefined;
  private kept = new Map<CheckEntry, Kept>();
  /** What each has run through. */
  footprints: ReadonlyMap<CheckEntry, Footprint> = new Map();
  /** The rules of the run that is going on, and what it has come to by now. */
  private going: { readonly rules: Rules; readonly by: CheckResult[] } | undefined;
  /** How many checks the last run had to run. */
  ran = 0;
  private readonly changed = new ChangedRules();

  /** @param seed the luck of all checks, where it is not to be their own */
  constructor(private readonly seed?: number) {}

  /**
   * Runs those of the checks of a ruleset that an edit may have touched since the last time; the others keep their results. As
   * work in parts, the short ones first. What is left off before its end counts for nothing.
   * @returns what became of those that are meant, the first {@link MOST_RUN} of them, in the order of the ruleset
   */
  *run(rules: Rules, { isMeant = () => true, ran }: ChecksWanted = {}): Generator<void, readonly CheckRan[]> {
    const { seed } = this;
    const session = new CheckSession(rules, this.changed);
    const reach = new Reach(rules);
    const stays = this.rules ? untouchedBetween(this.rules, rules) : () => false;
    const checks = checksOf(rules);
    // Of those behind so many it is found that they are too many: they are not run, and have no result.
    const meant = checks.filter(isMeant).slice(0, MOST_RUN);
    const isWanted = new Set(meant);
    const now = new Map<CheckEntry, Kept>();
    const open: CheckEntry[] = [];
    const going: CheckResult[] = [];
    this.going = { rules, by: going };
    const take = (one: Kept) => {
      now.set(one.check, one);
      if (!isWanted.has(one.check)) return;
      going.push(one.result);
      ran?.(one);
    };
    this.ran = 0;
    for (const check of checks) {
      const before = this.kept.get(check);
      if (before && stays(check, before)) take(before);
      else if (isWanted.has(check)) open.push(check);
    }
    // Whoever waits for those that fail does not wait for the long ones: most do in a second or two.
    const ticks = (check: CheckEntry) => this.kept.get(check)?.result.ticks ?? 0;
    for (const check of open.sort((one, other) => ticks(one) - ticks(other))) {
      const footprint = new Footprint();
      const result = yield* session.run(seed === undefined ? check : { ...check, seed }, footprint);
      this.ran++;
      take({ check, result, reached: reach.of(check, footprint.events), footprint });
      yield;
    }
    // Only a run that came to its end is gone on from.
    this.rules = rules;
    this.kept = now;
    // What was worked out from them holds as long as no check had to be run.
    if (this.ran > 0 || this.footprints.size !== now.size)
      this.footprints = new Map(checks.flatMap((check) => (now.has(check) ? [[check, now.get(check)!.footprint] as const] : [])));
    return meant.map((check) => now.get(check)!);
  }

  /**
   * What the run of these rules has come to by now, in the order in which that came about; nothing where another is going on.
   * @param from how many of them are known already
   */
  soFar(rules: Rules, from: number): readonly CheckResult[] {
    return this.going?.rules === rules ? this.going.by.slice(from) : [];
  }
}

type Stays = (check: CheckEntry, before: Kept) => boolean;

/** The entries that differ between rules that have the same ids, and how each is now and was. */
function changedEntries(before: Rules, after: Rules): ReadonlyMap<Key, readonly [ChapterEntry, ChapterEntry]> {
  const changed = new Map<Key, readonly [ChapterEntry, ChapterEntry]>();
  for (const [chapter, { entries }] of after.chapters) {
    const old = before.chapters.get(chapter)!.entries;
    if (old === entries || onlyTries(chapter)) continue;
    entries.forEach((entry, i) => {
      if (old[i] !== entry) changed.set(keyOf(chapter, entry.id), [old[i], entry]);
    });
  }
  return changed;
}

/** Tells of a check and what became of it under some rules whether the same would become of it under others. */
function untouchedBetween(before: Rules, after: Rules): Stays {
  // Where something was added, renamed or deleted, names may mean something else, and another kind may be the players'.
  if (before.vocabulary !== after.vocabulary || playerKind(before) !== playerKind(after)) return () => false;
  const values = [...registry().sections].filter(([, { kind }]) => kind === 'value').map(([key]) => key);
  const other = ['tickRate', ...values].filter((key) => before.document[key] !== after.document[key]);
  if (other.some((key) => key !== 'arena')) return () => false;
  const ground = other.length > 0;
  const changed = changedEntries(before, after);
  const gated = [...changed].filter(([key]) => {
    const section = registry().sections.get(key.split('/')[0]);
    return section?.kind === 'chapter' && section.followsEvents;
  });
  return (check, { reached, footprint: { events } }) => {
    // What a check changes itself reaches further than anybody knows.
    if (check.changes !== undefined && check.changes.length > 0) return changed.size === 0 && !ground;
    if (ground && check.ground === 'arena') return false;
    for (const key of changed.keys()) if (reached.has(key)) return false;
    return !gated.some(([, [was, is]]) => waitsFor(was, events) || waitsFor(is, events));
  };
}

/** One for all rules that follow from one another, as a document is edited. */
const keptOf = new WeakMap<Answers, KeptResults>();

function kept(rules: Rules): KeptResults {
  const answers = answersOf(rules);
  let known = keptOf.get(answers);
  if (!known) keptOf.set(answers, (known = new KeptResults()));
  return known;
}

/**
 * Runs the checks of a ruleset, in its order; as work in parts. Those that no edit can have touched since they were run under
 * earlier rules of the same document keep what became of them.
 */
export function* runChecks(rules: Rules): Generator<void, readonly CheckResult[]> {
  return (yield* kept(rules).run(rules)).map(({ result }) => result);
}

/** What the checks of a ruleset have run through, as far as they have been run. */
export const footprintsOf = (rules: Rules): ReadonlyMap<CheckEntry, Footprint> => kept(rules).footprints;

/** What the checks of a ruleset have come to by now, while they are being run. */
export const resultsSoFar = (rules: Rules, from: number): readonly CheckResult[] => kept(rules).soFar(rules, from);

/** How many checks had to be run the last time: for showing how far an edit reaches. */
export const checksRun = (rules: Rules): number => kept(rules).ran;
