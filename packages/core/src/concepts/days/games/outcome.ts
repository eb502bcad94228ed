import type { Game } from './game.js';
import type { PlanId } from './plans.js';

/** A mean with its standard error. */
export interface Estimate {
  readonly mean: number;
  readonly error: number;
}

/** What many games of a plan came to. */
export interface Outcome {
  readonly plan: PlanId;
  readonly games: number;
  readonly reached: Estimate;
  readonly ruined: Estimate;
  /** Days to the goal, of those games that reached it. */
  readonly days: Estimate;
  /** How many games ended on each day, from day 1, with the goal and with ruin. */
  readonly byDay: readonly { readonly goal: number; readonly ruined: number }[];
  readonly income: readonly (Estimate & { readonly label: string })[];
  readonly spent: readonly (Estimate & { readonly label: string })[];
  /** By game: the day of the goal; 0 where it was ruined, -1 where it went on. For comparing on the same luck. */
  readonly ends: readonly number[];
}

/** The mean of numbers and its standard error. */
export function estimate(values: readonly number[]): Estimate {
  const n = values.length;
  if (n === 0) return { mean: 0, error: 0 };
  const mean = values.reduce((sum, value) => sum + value, 0) / n;
  const squares = values.reduce((sum, value) => sum + (value - mean) * (value - mean), 0);
  return { mean, error: n < 2 ? 0 : Math.sqrt(squares / (n - 1) / n) };
}

/** A share and its standard error; one that was never or always seen is told as uncertain as one game would make it. */
function share(count: number, n: number): Estimate {
  if (n === 0) return { mean: 0, error: 0 };
  const p = count / n;
  return { mean: p, error: Math.sqrt(Math.max(p * (1 - p), 1 / n) / n) };
}

/** Puts games together. Parts that were played apart come to the same as all in one go, as long as their order is kept. */
export function outcomeOf(plan: PlanId, games: readonly Game[]): Outcome {
  const won = games.filter(({ end }) => end === 'goal');
  const most = Math.max(0, ...games.map(({ days }) => days));
  const sums = (of: 'income' | 'costs') => {
    const labels = [...new Set(games.flatMap((game) => [...game[of].keys()]))];
    return labels
      .map((label) => ({ label, ...estimate(games.map((game) => game[of].get(label) ?? 0)) }))
      .sort((a, b) => b.mean - a.mean || (a.label < b.label ? -1 : 1));
  };
  return {
    plan,
    games: games.length,
    reached: share(won.length, games.length),
    ruined: share(games.filter(({ end }) => end === 'ruined').length, games.length),
    days: estimate(won.map(({ days }) => days)),
    byDay: Array.from({ length: most }, (_, i) => ({
      goal: games.filter(({ end, days }) => end === 'goal' && days === i + 1).length,
      ruined: games.filter(({ end, days }) => end === 'ruined' && days === i + 1).length,
    })),
    income: sums('income'),
    spent: sums('costs'),
    ends: games.map(({ end, days }) => (end === 'goal' ? days : end === 'ruined' ? 0 : -1)),
  };
}

/** How two versions of the rules differ on the same luck, game by game. */
export interface Difference {
  readonly reached: Estimate;
  readonly ruined: Estimate;
  /** Days to the goal, of those games that reach it under both. */
  readonly days: Estimate;
  readonly both: number;
}

/** Compares outcomes of the same seeds; what luck does to both falls out of the difference. */
export function differenceOf(before: Outcome, after: Outcome): Difference {
  const n = Math.min(before.ends.length, after.ends.length);
  const pairs = Array.from({ length: n }, (_, i) => [before.ends[i], after.ends[i]] as const);
  const is = (test: (end: number) => boolean) => estimate(pairs.map(([a, b]) => Number(test(b)) - Number(test(a))));
  const both = pairs.filter(([a, b]) => a > 0 && b > 0);
  return { reached: is((end) => end > 0), ruined: is((end) => end === 0), days: estimate(both.map(([a, b]) => b - a)), both: both.length };
}
