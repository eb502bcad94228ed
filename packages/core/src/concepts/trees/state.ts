import { conceptState } from '../../world/concept-state.js';
import { type CompiledTrees } from './compile.js';
import { type treesTable } from './tables.js';

export interface Trees extends CompiledTrees {
  readonly cells: ReturnType<typeof treesTable.columnsIn>;
}

/** What the trees concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const trees = conceptState<CompiledTrees, Trees>('trees');
