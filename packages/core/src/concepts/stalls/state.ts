import { conceptState } from '../../world/concept-state.js';
import { type TableOf } from '../../world/define-table.js';
import { type stallsTable, type warePricesTable, type waresTable } from './tables.js';

export interface Stalls {
  readonly near: TableOf<typeof stallsTable>;
  readonly wares: TableOf<typeof waresTable>;
  readonly prices: TableOf<typeof warePricesTable>;
  /** Worked out from the tables, and held only until actors come or go. */
  readonly keepers: { version: number; rows: readonly number[] };
  /** How far any shop or market reaches, and whether one is open wherever one is. */
  readonly farthest: number;
  readonly isAnywhere: boolean;
}

/** What the stalls concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const stalls = conceptState<undefined, Stalls>('stalls');
