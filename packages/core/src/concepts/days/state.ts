import { conceptState } from '../../world/concept-state.js';
import { type CompiledThen } from '../../ruleset/context.js';
import { type EconomyRules } from '../ledger/schema.js';
import { type FormulaFunction } from '../../formula/compile.js';
import { type TableOf } from '../../world/define-table.js';
import { type daysTable } from './tables.js';

export interface Days extends CompiledDays {
  readonly table: TableOf<typeof daysTable>;
}

export interface CompiledDays {
  readonly economy: EconomyRules | undefined;
  /** It, among the rules that act. */
  readonly rule: number;
  /** Ticks of a day; 0 where it lasts as long as players like. */
  readonly length: number;
  readonly chance: number;
  readonly ruin: FormulaFunction | undefined;
  readonly onRuin: CompiledThen | undefined;
  readonly goal: FormulaFunction | undefined;
  readonly onGoal: CompiledThen | undefined;
}

/** What the days concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const days = conceptState<CompiledDays, Days>('days');
