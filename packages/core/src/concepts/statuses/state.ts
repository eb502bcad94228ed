import { conceptState } from '../../world/concept-state.js';
import { type Column } from '../../world/table.js';
import { type StatusEntry } from './schema.js';

export interface Statuses {
  /** By status: how many grants of it are on whom. */
  readonly grants: readonly Column[];
  readonly ids: readonly string[];
}

/** What the statuses concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const statuses = conceptState<readonly StatusEntry[], Statuses>('statuses');
