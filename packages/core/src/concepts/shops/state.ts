import { conceptState } from '../../world/concept-state.js';
import { type Column } from '../../world/table.js';
import { type CompiledShops } from './compile.js';
import { type TableOf } from '../../world/define-table.js';
import { type stocksTable } from './tables.js';

export interface Shops extends CompiledShops {
  /** By offer: how many somebody has bought, or the tier that they have. */
  readonly held: readonly Column[];
  readonly stocks: TableOf<typeof stocksTable>;
}

/** What the shops concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const shops = conceptState<CompiledShops, Shops>('shops');
