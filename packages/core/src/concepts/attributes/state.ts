import { conceptState } from '../../world/concept-state.js';
import type { TableOf } from '../../world/define-table.js';
import type { Column } from '../../world/table.js';
import type { CompiledAttributes } from './compile.js';
import type { Remembered } from './remembered.js';
import type { attributesTable, crossingsTable, modifierHeadsTable, modifiersTable, restsTable } from './tables.js';

type AttributeColumns = ReturnType<typeof attributesTable.columnsIn>[number];

/** The columns of one attribute, looked up once; those that its author's words do not call for are not there. */
export interface Cells extends AttributeColumns {
  /** What changes are made to: a stat's base, any other's value. */
  readonly own: Column;
  /** Rates by row, and edges by threshold and row, as they were worked out when the row was last touched. */
  readonly rates: Remembered;
  readonly edges: readonly { readonly low: Remembered; readonly top: Remembered; readonly margin: Remembered }[];
}

/** Rows of actors, ascending. */
export type Rows = readonly number[];

/** The attributes of those who are in the arena. */
interface InArena {
  /** The version of the table of actors at which this was so. */
  version: number;
  /** Those that refill, and those that have thresholds, as far as anybody has them. */
  refilled: readonly number[];
  edged: readonly number[];
  /** By attribute, the rows of those who have it, ascending; undefined where every row has. Known of those above alone. */
  rows: readonly (Rows | undefined)[];
  /** The rows of those who have one whose bounds read what moves by itself. */
  restless: Rows;
}

/** The attributes' state of a world. */
export interface Attributes {
  readonly compiled: CompiledAttributes;
  readonly cells: readonly Cells[];
  readonly modifiers: TableOf<typeof modifiersTable>;
  readonly of: TableOf<typeof modifiersTable>['cells'];
  readonly heads: TableOf<typeof modifierHeadsTable>;
  readonly crossings: TableOf<typeof crossingsTable>;
  readonly rests: TableOf<typeof restsTable>;
  /** By kind of actor, those of its attributes that have an end or an edge that matters when it is crossed. */
  readonly watched: readonly (readonly number[])[];
  /** By kind of actor, those of its attributes that refill or have thresholds. */
  readonly looked: readonly (readonly number[])[];
  /** By kind of actor, whether it has one whose bounds read what moves by itself. */
  readonly restless: readonly boolean[];
  /** By attribute, whether every kind of actor has it. */
  readonly common: readonly boolean[];
  /** What there is to look at in a tick, as long as nobody comes or goes. */
  readonly here: InArena;
  /** Rows whose values were moved in this tick, with what moved them last. Empty between ticks. */
  readonly unsettled: Map<number, number>;
  /** What a player who comes back had of each, until all that raises their bounds is in place. Empty at any other time. */
  readonly returning: number[];
  /** By attribute: a counter that no bound and no live amount reads. A change to it moves nothing else. */
  readonly alone: readonly boolean[];
}

/** What the attributes concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const attributes = conceptState<CompiledAttributes, Attributes>('attributes');
