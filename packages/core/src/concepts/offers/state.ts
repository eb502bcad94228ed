import { conceptState } from '../../world/concept-state.js';
import { type TableOf } from '../../world/define-table.js';
import { type offersTable } from './tables.js';

export interface OffersState {
  readonly things: Things;
  readonly offers: TableOf<typeof offersTable>;
  /** How far anything reaches. */
  readonly farthest: number;
}

/** Worked out from the tables, and held only until actors come or go. */
export interface Things {
  version: number;
  rows: number[];
}

/** What the offers have at hand: their compiled form in rules, and what they keep by a world. */
export const offers = conceptState<undefined, OffersState>('offers');
