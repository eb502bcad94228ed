import { conceptState } from '../../world/concept-state.js';
import { type CompiledContainers } from './compile.js';
import { type TableOf } from '../../world/define-table.js';
import { type contentsTable, type filledTable, type lidsTable, type openingsTable, type shownTable } from './tables.js';

export interface Containers extends CompiledContainers {
  readonly lids: TableOf<typeof lidsTable>;
  readonly openings: TableOf<typeof openingsTable>;
  readonly contents: TableOf<typeof contentsTable>;
  readonly filled: TableOf<typeof filledTable>;
  readonly shown: TableOf<typeof shownTable>;
}

/** What the containers concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const containers = conceptState<CompiledContainers, Containers>('containers');
