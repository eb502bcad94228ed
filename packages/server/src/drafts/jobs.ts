import {
  followSaved,
  savedSections,
  type SavedSheet,
  type Loss,
  type Problem,
  readRuleset,
  type Rules,
  savedProblems,
  type SavedPlayer,
  seatProblems,
  sheetOf,
  Upgrade,
} from '@eager-ember/core';

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

/** What can be asked, and what comes back. */
export interface Jobs {
  check: { ask: { document: unknown }; answer: readonly Problem[] };
  /** Why nobody could take a seat; empty where they can. */
  seats: { ask: { document: unknown }; answer: string };
  sheet: { ask: { document: unknown; saved: unknown }; answer: { problems: readonly Problem[]; sheet: SavedSheet } };
  /** What is wrong with what is to be kept of a player, taken at its word. */
  strict: { ask: { document: unknown; saved: unknown }; answer: readonly Problem[] };
  /** Reads two documents, which the jobs below then speak of by the key. */
  compare: { ask: { key: number; before: unknown; after: unknown }; answer: Comparison };
  /** What players would lose. */
  losses: { ask: { key: number; players: readonly Kept[] }; answer: readonly PlayerLoss[] };
  /** What is kept of players under the later rules, of those for whom that is something else. */
  follow: { ask: { key: number; players: readonly Kept[] }; answer: readonly Kept[] };
  drop: { ask: { key: number }; answer: null };
}
export type JobName = keyof Jobs;

type Workers = { readonly [K in JobName]: (ask: Jobs[K]['ask']) => Jobs[K]['answer'] };

interface Pair {
  readonly before: Rules;
  readonly after: Rules;
  upgrade?: Upgrade;
}

const NOTHING: SavedSheet = { parts: [], unplaced: [] };

/** Does the jobs, in whichever thread this is. */
export function workers(): Workers {
  const pairs = new Map<number, Pair>();
  const sound = (document: unknown): Rules => {
    const { rules, problems } = readRuleset(document);
    if (!rules) throw new Error(`A stored ruleset has problems: ${problems[0].path} ${problems[0].message}`);
    return rules;
  };
  const readable = ({ before }: Pair, players: readonly Kept[]) =>
    // What can't be read is set aside when its player comes; nobody touches it here.
    players.filter(({ saved }) => savedProblems(before, saved).length === 0);
  return {
    check: ({ document }) => readRuleset(document).problems,
    seats: ({ document }) => seatProblems(sound(document), {})[0]?.message ?? '',
    sheet: ({ document, saved }) => {
      const rules = sound(document);
      const problems = savedProblems(rules, saved);
      return { problems, sheet: problems.length > 0 ? NOTHING : sheetOf(rules, saved as SavedPlayer) };
    },
    strict: ({ document, saved }) => savedProblems(sound(document), saved, true),
    compare: ({ key, before, after }) => {
      const { rules: later, problems } = readRuleset(after);
      if (!later) return { problems, keeps: true };
      // What was stored before a version knew of its problems has nothing to follow from.
      const { rules: earlier } = readRuleset(before);
      if (!earlier) return { problems: [], keeps: true };
      pairs.set(key, { before: earlier, after: later });
      const keeps = [...savedSections(earlier), ...savedSections(later)].every(
        (section) => JSON.stringify(earlier.document[section]) === JSON.stringify(later.document[section]),
      );
      return { problems: [], keeps };
    },
    losses: ({ key, players }) => {
      const pair = pairs.get(key);
      if (!pair) return [];
      const upgrade = (pair.upgrade ??= new Upgrade(pair.before, pair.after));
      return readable(pair, players).flatMap(({ name, saved }) => upgrade.lossesOf(saved).map((loss) => ({ player: name, ...loss })));
    },
    follow: ({ key, players }) => {
      const pair = pairs.get(key);
      if (!pair) return [];
      return readable(pair, players).flatMap(({ name, saved }) => {
        const followed = followSaved(pair.before, pair.after, saved);
        return JSON.stringify(followed) === JSON.stringify(saved) ? [] : [{ name, saved: followed }];
      });
    },
    drop: ({ key }) => {
      pairs.delete(key);
      return null;
    },
  };
}
