import { conceptState } from '../../world/concept-state.js';
import { type TableOf } from '../../world/define-table.js';
import { type offersTable } from './tables.js';

export interface ReachState {
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

/** What the reach concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const reach = conceptState<undefined, ReachState>('reach');
