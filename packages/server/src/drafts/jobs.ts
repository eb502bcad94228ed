import {
  followSaved,
  isTooDeep,
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
  sharing,
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

/** How many rulesets are at hand to be read again. */
const MOST_READERS = 4;

/** Reads rulesets that come again and again, a little edited: what an edit left as it was is not read a second time. */
class Readers {
  /** By what a ruleset is called; two of one name get in each other's way, and no more. */
  private readonly all = new Map<string, { readonly compiler: RulesetCompiler; last: unknown }>();

  read(document: unknown): Reading {
    const name = String((document as { readonly name?: unknown } | null | undefined)?.name);
    const reader = this.all.get(name) ?? { compiler: new RulesetCompiler(), last: undefined };
    this.all.delete(name);
    this.all.set(name, reader);
    if (this.all.size > MOST_READERS) this.all.delete([...this.all.keys()][0]);
    // What comes is a copy. What nobody can have written is told before anything recursive touches it.
    const shared = isTooDeep(document) ? document : sharing(reader.last, document);
    const reading = reader.compiler.read(shared);
    if (reading.rules) reader.last = shared;
    return reading;
  }
}

const NOTHING: SavedSheet = { parts: [], unplaced: [] };

/** Does the jobs, in whichever thread this is. */
export function workers(): Workers {
  const pairs = new Map<number, Pair>();
  const readers = new Readers();
  const sound = (document: unknown): Rules => {
    const { rules, problems } = readers.read(document);
    if (!rules) throw new Error(`A stored ruleset has problems: ${problems[0].path} ${problems[0].message}`);
    return rules;
  };
  const readable = ({ before }: Pair, players: readonly Kept[]) =>
    // What can't be read is set aside when its player comes; nobody touches it here.
    players.filter(({ saved }) => savedProblems(before, saved).length === 0);
  return {
    check: ({ document }) => readers.read(document).problems,
    seats: ({ document }) => seatProblems(sound(document), {})[0]?.message ?? '',
    sheet: ({ document, saved }) => {
      const rules = sound(document);
      const problems = savedProblems(rules, saved);
      return { problems, sheet: problems.length > 0 ? NOTHING : sheetOf(rules, saved as SavedPlayer) };
    },
    strict: ({ document, saved }) => savedProblems(sound(document), saved, true),
    compare: ({ key, before, after }) => {
      // Most of the time the earlier one is what was read last, and the later one little else.
      const { rules: earlier } = readers.read(before);
      const { rules: later, problems } = readers.read(after);
      if (!later) return { problems, keeps: true };
      // What was stored before a version knew of its problems has nothing to follow from.
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
