import { conceptState } from '../../world/concept-state.js';
import { type TableOf } from '../../world/define-table.js';
import { type stallsTable, type warePricesTable, type waresTable } from './tables.js';

export interface Stalls {
  readonly near: TableOf<typeof stallsTable>;
  readonly wares: TableOf<typeof waresTable>;
  readonly prices: TableOf<typeof warePricesTable>;
}

/** What the stalls concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const stalls = conceptState<undefined, Stalls>('stalls');
