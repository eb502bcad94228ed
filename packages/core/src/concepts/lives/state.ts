import { conceptState } from '../../world/concept-state.js';
import { type CompiledThen } from '../../ruleset/context.js';
import { type RowsOfKinds } from '../../world/rows-of-kinds.js';
import { type Names } from './names.js';
import { type PlacedLife } from './population.js';
import { type TableOf } from '../../world/define-table.js';
import { type harmTable, type livesTable } from './tables.js';

export interface CompiledLives {
  readonly list: readonly Life[];
  readonly placed: ReadonlyMap<number, PlacedLife>;
  /** How many values an actor of each kind has. */
  readonly values: readonly number[];
}

export interface Life {
  /** The pool that it falls at the bottom of; -1 for none. */
  readonly pool: number;
  readonly onSpawn: CompiledThen | undefined;
  readonly onDefeat: CompiledThen | undefined;
  /** Ticks until it comes back; 0 where it does not. */
  readonly after: number;
  readonly atStart: boolean;
  readonly goes: boolean;
}

export interface Lives extends CompiledLives {
  readonly table: TableOf<typeof livesTable>;
  readonly harm: TableOf<typeof harmTable>;
  readonly names: Names;
  /** Those who can fall. */
  readonly mortal: RowsOfKinds;
}

/** What the lives concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const lives = conceptState<CompiledLives, Lives>('lives');
