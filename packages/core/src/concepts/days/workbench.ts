import type { Workbench } from '../../workbench/workbench.js';
import type { Rules } from '../../ruleset/rules.js';
import { economyFacts } from './evidence.js';
import { EconomyGames } from './games/game.js';
import { type PlanId, PLANS } from './games/plans.js';

/** Plays games by a plan: at each go those of the seeds from one to another. */
const games = (rules: Rules, plan: PlanId) => {
  const all = new EconomyGames(
    rules,
    PLANS.find(({ id }) => id === plan)!,
  );
  return (from: number, to: number) => Array.from({ length: to - from + 1 }, (_, i) => all.play(from + i));
};

export const workbench = { questions: { facts: economyFacts }, tasks: { games } } satisfies Workbench;
export type EconomyQuestions = (typeof workbench)['questions'];
export type EconomyTasks = (typeof workbench)['tasks'];
