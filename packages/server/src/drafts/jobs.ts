import {
  followSaved,
  KeptResults,
  savedSections,
  type SavedSheet,
  type Loss,
  type Problem,
  type Reading,
  RulesetCompiler,
  type Rules,
  savedProblems,
  type SavedPlayer,
  seatProblems,
  sheetOf,
  Upgrade,
  upgradeDocument,
} from '@eager-ember/core';
import type { Operation } from 'fast-json-patch';
import { patched } from './patching.js';
import { beginRun, type RunAsked, type RunOutcome, type RunState, type TestRun } from './test-runs.js';

/** What is kept of a player, under their name. */
export interface Kept {
  readonly name: string;
  readonly saved: SavedPlayer;
}

export interface PlayerLoss extends Loss {
  readonly player: string;
}

/** How two documents stand to each other. */
export interface Comparison {
  /** What is wrong with the later one. */
  readonly problems: readonly Problem[];
  /** Whether nothing that is kept of players can change by it. */
  readonly keeps: boolean;
}

/** Which revision of a stored ruleset something is about, and its text for a thread that does not have it. */
export interface OfStored {
  readonly id: string;
  readonly revision: number;
  readonly text?: string;
}

/** An edited document. */
export interface Edited extends Comparison {
  readonly name: string;
  /** As it is to be stored; empty where it is not sound. */
  readonly text: string;
}

/** What can be asked, and what comes back. */
export interface Jobs {
  check: { ask: { document: unknown }; answer: readonly Problem[] };
  /** Why nobody could take a seat; empty where they can. */
  seats: { ask: { of: OfStored }; answer: string };
  sheet: { ask: { of: OfStored; saved: unknown }; answer: { problems: readonly Problem[]; sheet: SavedSheet } };
  /** What is wrong with what is to be kept of a player, taken at its word. */
  strict: { ask: { of: OfStored; saved: unknown }; answer: readonly Problem[] };
  /** Edits a document, of which the jobs below then speak by the key. */
  edit: { ask: { key: number; of: OfStored; patch: readonly Operation[] }; answer: Edited };
  /** What players would lose. */
  losses: { ask: { key: number; players: readonly Kept[] }; answer: readonly PlayerLoss[] };
  /** What is kept of players under the later rules, of those for whom that is something else. */
  follow: { ask: { key: number; players: readonly Kept[] }; answer: readonly Kept[] };
  /** It was stored as the next revision, or was not. */
  drop: { ask: { key: number; stored: boolean }; answer: null };
  /** Begins to run checks or hunts, of which the jobs below then speak by the key. @returns of which revision, and what keeps them from being run */
  run: { ask: RunAsked & { key: number; of: OfStored }; answer: { revision: number; problems: readonly Problem[] } };
  goOn: { ask: { key: number; ms: number }; answer: RunState };
  outcome: { ask: { key: number }; answer: RunOutcome };
  leave: { ask: { key: number }; answer: null };
}
export type JobName = keyof Jobs;

type Workers = { readonly [K in JobName]: (ask: Jobs[K]['ask']) => Jobs[K]['answer'] };

/** This thread does not have the document that it is asked about. */
export class Unknown extends Error {}

interface Pair {
  readonly after: HeldDocument;
  /** Those before the edit and those after it; undefined where there was nothing sound before. */
  readonly rules?: { readonly before: Rules; readonly after: Rules };
  upgrade?: Upgrade;
}

/** A document that is at hand, and what was made of it. */
interface HeldDocument {
  readonly id: string;
  readonly revision: number;
  readonly document: Readonly<Record<string, unknown>>;
  readonly reading: Reading;
}

/** How many rulesets are at hand to be read again, and revisions of one. */
const MOST_RULESETS = 8;
const MOST_REVISIONS = 3;

interface HeldRuleset {
  readonly compiler: RulesetCompiler;
  readonly revisions: Map<number, HeldDocument>;
  /** What its checks came to, by their seed: what no edit can have touched is not run again. */
  readonly results: Map<number | undefined, KeptResults>;
}

/** How many seeds the results of one ruleset are kept for. */
const MOST_SEEDS = 4;

/** The stored rulesets that were asked about, each read by a compiler of its own: what an edit left as it was is not read again. */
class HeldDocuments {
  private readonly all = new Map<string, HeldRuleset>();

  /** @throws Unknown where it is not at hand, and comes without its text */
  of({ id, revision, text }: OfStored): HeldDocument {
    const known = this.at(id).revisions.get(revision);
    if (known) return known;
    if (text === undefined) throw new Unknown();
    const held = this.read(id, revision, upgradeDocument(JSON.parse(text)) as HeldDocument['document']);
    this.put(held);
    return held;
  }

  /** What becomes of a document by a patch. @throws Impossible where it does not fit */
  edited({ id, revision, document }: HeldDocument, patch: readonly Operation[]): HeldDocument {
    return this.read(id, revision + 1, upgradeDocument(patched(document, patch)) as HeldDocument['document']);
  }

  put(held: HeldDocument): void {
    const { revisions } = this.at(held.id);
    revisions.set(held.revision, held);
    if (revisions.size > MOST_REVISIONS) revisions.delete([...revisions.keys()][0]);
  }

  private read(id: string, revision: number, document: HeldDocument['document']): HeldDocument {
    return { id, revision, document, reading: this.at(id).compiler.read(document) };
  }

  /** What the checks of a ruleset came to when they were run before. */
  resultsOf(id: string, seed: number | undefined): KeptResults {
    const { results } = this.at(id);
    const kept = results.get(seed) ?? new KeptResults(seed);
    results.delete(seed);
    results.set(seed, kept);
    if (results.size > MOST_SEEDS) results.delete([...results.keys()][0]);
    return kept;
  }

  private at(id: string): HeldRuleset {
    const at = this.all.get(id) ?? { compiler: new RulesetCompiler(), revisions: new Map(), results: new Map() };
    this.all.delete(id);
    this.all.set(id, at);
    if (this.all.size > MOST_RULESETS) this.all.delete([...this.all.keys()][0]);
    return at;
  }
}

const NOTHING: SavedSheet = { parts: [], unplaced: [] };

/** Does the jobs, in whichever thread this is. */
export function workers(): Workers {
  const pairs = new Map<number, Pair>();
  const runs = new Map<number, TestRun>();
  const stored = new HeldDocuments();
  // What is not stored yet is mostly read once.
  const unstored = new RulesetCompiler();
  const sound = (of: OfStored): Rules => {
    const { rules, problems } = stored.of(of).reading;
    if (!rules) throw new Error(`A stored ruleset has problems: ${problems[0].path} ${problems[0].message}`);
    return rules;
  };
  const readable = (before: Rules, players: readonly Kept[]) =>
    // What can't be read is set aside when its player comes; nobody touches it here.
    players.filter(({ saved }) => savedProblems(before, saved).length === 0);
  return {
    check: ({ document }) => unstored.read(document).problems,
    seats: ({ of }) => seatProblems(sound(of), {})[0]?.message ?? '',
    sheet: ({ of, saved }) => {
      const rules = sound(of);
      const problems = savedProblems(rules, saved);
      return { problems, sheet: problems.length > 0 ? NOTHING : sheetOf(rules, saved as SavedPlayer) };
    },
    strict: ({ of, saved }) => savedProblems(sound(of), saved, true),
    edit: ({ key, of, patch }) => {
      const before = stored.of(of);
      const after = stored.edited(before, patch);
      const name = String(after.document['name']);
      const { rules: later, problems } = after.reading;
      if (!later) return { problems, keeps: true, name, text: '' };
      const text = JSON.stringify(after.document);
      const { rules: earlier } = before.reading;
      pairs.set(key, { after, ...(earlier && { rules: { before: earlier, after: later } }) });
      // What was stored before a version knew of its problems has nothing to follow from.
      return { problems: [], keeps: !earlier || keepsPlayers(earlier, later), name, text };
    },
    losses: ({ key, players }) => {
      const pair = pairs.get(key);
      if (!pair?.rules) return [];
      const { before, after } = pair.rules;
      const upgrade = (pair.upgrade ??= new Upgrade(before, after));
      return readable(before, players).flatMap(({ name, saved }) => upgrade.lossesOf(saved).map((loss) => ({ player: name, ...loss })));
    },
    follow: ({ key, players }) => {
      const rules = pairs.get(key)?.rules;
      if (!rules) return [];
      return readable(rules.before, players).flatMap(({ name, saved }) => {
        const followed = followSaved(rules.before, rules.after, saved);
        return JSON.stringify(followed) === JSON.stringify(saved) ? [] : [{ name, saved: followed }];
      });
    },
    drop: ({ key, stored: wasStored }) => {
      const pair = pairs.get(key);
      if (pair && wasStored) stored.put(pair.after);
      pairs.delete(key);
      return null;
    },
    run: ({ key, of, ...asked }) => {
      const held = stored.of(of);
      const { rules, problems } = held.reading;
      if (rules)
        runs.set(
          key,
          beginRun(rules, asked, () => stored.resultsOf(of.id, asked.seed)),
        );
      return { revision: held.revision, problems };
    },
    goOn: ({ key, ms }) => runs.get(key)!.go(ms),
    outcome: ({ key }) => runs.get(key)!.outcome(),
    leave: ({ key }) => {
      runs.delete(key);
      return null;
    },
  };
}

/** Whether an edit leaves everything as it was of which something is kept of players. */
const keepsPlayers = (earlier: Rules, later: Rules): boolean =>
  [...savedSections(earlier), ...savedSections(later)].every((section) => {
    const [before, after] = [earlier.document[section], later.document[section]];
    return before === after || JSON.stringify(before) === JSON.stringify(after);
  });
