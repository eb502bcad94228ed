import { conceptState } from '../../world/concept-state.js';
import { type TableOf } from '../../world/define-table.js';
import { type areasTable, type projectilesTable, type strikesTable } from './tables.js';

/** The deliveries' state of a world. */
export interface Deliveries {
  readonly projectiles: TableOf<typeof projectilesTable>;
  readonly flying: TableOf<typeof projectilesTable>['cells'];
  readonly strikes: TableOf<typeof strikesTable>;
  readonly areas: TableOf<typeof areasTable>;
  readonly ground: TableOf<typeof areasTable>['cells'];
}

/** What the deliveries concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const deliveries = conceptState<undefined, Deliveries>('deliveries');
