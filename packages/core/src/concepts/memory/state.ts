import { conceptState } from '../../world/concept-state.js';
import { type TableOf } from '../../world/define-table.js';
import { type memoryTable } from './tables.js';

export interface Memory {
  readonly table: TableOf<typeof memoryTable>;
  /** The rows by what they are about; derived, and built anew when rows came or went. */
  readonly index: { version: number; rows: Map<string, number> };
}

/** What the memory concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const memory = conceptState<undefined, Memory>('memory');
