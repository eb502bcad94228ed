import { conceptState } from '../../world/concept-state.js';
import { type TableOf } from '../../world/define-table.js';
import { type waitsTable } from './tables.js';

export interface Sequences {
  readonly table: TableOf<typeof waitsTable>;
  readonly resumeTimer: number;
}

/** What the sequences concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const sequences = conceptState<undefined, Sequences>('sequences');
