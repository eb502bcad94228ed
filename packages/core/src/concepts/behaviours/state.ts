import { conceptState } from '../../world/concept-state.js';
import { type RowsOfKinds } from '../../world/rows-of-kinds.js';
import { type Ability } from '../abilities/compile.js';
import { type BehaviourEntry } from './schema.js';
import { type TableOf } from '../../world/define-table.js';
import { type mindsTable } from './tables.js';

export interface Mind {
  readonly behaviour: BehaviourEntry | undefined;
  readonly rule: number;
  /** What luck decides where a wanderer goes. */
  readonly luck: readonly [number, number];
  readonly pause: number;
}

export interface Behaviours {
  readonly list: readonly Mind[];
  readonly table: TableOf<typeof mindsTable>;
  /** By kind of actor, its abilities in the order in which it has them. */
  readonly owned: readonly (readonly Ability[])[];
  /** Those who think. */
  readonly minded: RowsOfKinds;
}

/** What the behaviours concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const behaviours = conceptState<readonly Mind[], Behaviours>('behaviours');
