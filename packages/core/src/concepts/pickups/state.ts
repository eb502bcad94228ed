import { conceptState } from '../../world/concept-state.js';
import { type CompiledPickups } from './compile.js';
import { type Spots } from '../movement/spots.js';
import { type TableOf } from '../../world/define-table.js';
import { type pickupsRefusedTable, type pickupsTable, type pickupsTakenTable } from './tables.js';

export interface Pickups extends CompiledPickups {
  readonly table: TableOf<typeof pickupsTable>;
  /** Its columns that every tick asks for. */
  readonly of: TableOf<typeof pickupsTable>['cells'];
  readonly own: TableOf<typeof pickupsTakenTable>;
  readonly refused: TableOf<typeof pickupsRefusedTable>;
  readonly returnTimer: number;
  /** Where those lie that are there, by row; laid out anew where some came or went. */
  readonly lying: { version: number; readonly spots: Spots };
}

/** What the pickups concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const pickups = conceptState<CompiledPickups, Pickups>('pickups');
