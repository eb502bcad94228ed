export { EconomyGames, type Game, MOST_DAYS, rulesForGames } from './economy-game.js';
export { type Difference, differenceOf, type Estimate, estimate, type Outcome, outcomeOf } from './economy-outcome.js';
export { type Plan, PLAN_IDS, type PlanId, PLANS } from './plans.js';
