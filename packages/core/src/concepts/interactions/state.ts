import { conceptState } from '../../world/concept-state.js';
import { type Amount, type CompiledThen } from '../../ruleset/context.js';
import { type FormulaFunction } from '../../formula/compile.js';
import { type TableOf } from '../../world/define-table.js';
import { type visitsTable } from './tables.js';

export interface CompiledInteractions {
  readonly list: readonly Interaction[];
  /** What one placed thing says otherwise, by its position among them and the interaction's. */
  readonly variants: ReadonlyMap<string, Interaction>;
  /** The interactions of each kind of actor. */
  readonly ofType: readonly (readonly number[])[];
}

export interface Interaction {
  readonly id: string;
  readonly prompt: string;
  /** It, among the rules that act. */
  readonly rule: number;
  readonly reach: number;
  readonly sight: boolean;
  readonly who: FormulaFunction | undefined;
  readonly needs: readonly Need[];
  readonly price: { readonly attribute: number; readonly amount: Amount; readonly say: string | undefined } | undefined;
  /** Ticks that a visit takes at least; 0 where its list of actions says alone. */
  readonly busy: number;
  readonly oneAtATime: boolean;
  readonly then: CompiledThen;
  readonly onBreak: CompiledThen | undefined;
  readonly refund: number;
  /** Ticks after its beginning from which on nothing is given back. */
  readonly refundUntil: number;
  readonly remembers: { readonly all: boolean; readonly ticks: number; readonly say: string | undefined } | undefined;
  /** What a visit is remembered as. */
  readonly purpose: number;
}

export interface Need {
  readonly test: FormulaFunction;
  readonly say: string;
}

export interface Interactions extends CompiledInteractions {
  readonly table: TableOf<typeof visitsTable>;
}

/** What the interactions concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const interactions = conceptState<CompiledInteractions, Interactions>('interactions');
