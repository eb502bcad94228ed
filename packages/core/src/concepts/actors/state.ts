import { conceptState } from '../../world/concept-state.js';
import { type ActorEntry } from './schema.js';
import { type Table } from '../../world/table.js';

export interface Actors {
  readonly table: Table;
  readonly types: readonly ActorEntry[];
}

/** What the actors concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const actors = conceptState<readonly ActorEntry[], Actors>('actors');
