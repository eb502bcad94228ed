/** A way to play the economy, for games that are simulated. */
export interface Plan {
  readonly id: PlanId;
  readonly label: string;
  /** What it does, in words. */
  readonly says: string;
  /** A good is sold once its price is at least this share of its range; 0 for at once. */
  readonly holds: number;
  /** Whether what tomorrow costs is kept back when something is bought. */
  readonly careful: boolean;
}

export const PLAN_IDS = ['sellAtOnce', 'hold', 'upgradeFirst'] as const;
export type PlanId = (typeof PLAN_IDS)[number];

export const PLANS: readonly Plan[] = [
  { id: 'sellAtOnce', label: 'Sell at once', says: 'sells all each day, keeps back what tomorrow costs', holds: 0, careful: true },
  {
    id: 'hold',
    label: 'Hold',
    says: 'sells from two thirds of a price’s range on, keeps back what tomorrow costs',
    holds: 2 / 3,
    careful: true,
  },
  { id: 'upgradeFirst', label: 'Upgrade first', says: 'sells all each day, and buys whatever it can at once', holds: 0, careful: false },
];
