import { conceptState } from '../../world/concept-state.js';
import { type CompiledThen } from '../../ruleset/context.js';
import { type FormulaFunction } from '../../formula/compile.js';
import { type PlacedAs } from '../arena/schema.js';
import { type Spots } from '../movement/spots.js';
import { type TableOf } from '../../world/define-table.js';
import { type insideTable } from './tables.js';

/** A zone where it is placed. */
export interface PlacedZone extends ZoneRules {
  readonly index: number;
  readonly thing: PlacedAs<'zone'>;
}

export interface ZoneRules {
  readonly id: string;
  readonly rule: number;
  readonly who: FormulaFunction | undefined;
  readonly onEnter: CompiledThen;
  readonly onLeave: CompiledThen;
  /** Ticks between two of its doings inside; 0 for none. */
  readonly every: number;
  readonly inside: CompiledThen;
}

export interface Zones {
  readonly list: readonly PlacedZone[];
  /** The same by their position among the placed things. */
  readonly byPlace: ReadonlyMap<number, PlacedZone>;
  readonly table: TableOf<typeof insideTable>;
  /** Where they lie, by their position in the list. */
  readonly spots: Spots;
}

/** What the zones concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const zones = conceptState<readonly PlacedZone[], Zones>('zones');
