import { conceptState } from '../../world/concept-state.js';
import { type Column } from '../../world/table.js';
import { type CompiledLoot } from './compile.js';
import { type TableOf } from '../../world/define-table.js';
import { type roomStreaksTable } from './tables.js';

export interface Loot extends CompiledLoot {
  /** By table: the column of its streak, where it has one. */
  readonly streaks: readonly (Column | undefined)[];
  readonly room: TableOf<typeof roomStreaksTable>;
}

/** What the loot concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const loot = conceptState<CompiledLoot, Loot>('loot');
