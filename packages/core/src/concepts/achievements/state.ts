import { conceptState } from '../../world/concept-state.js';
import { type AchievementEntry } from './schema.js';
import { type Amount, type CompiledPattern, type CompiledThen } from '../../ruleset/context.js';
import { type FormulaFunction } from '../../formula/compile.js';
import { type Pattern } from '../../ruleset/registry.js';
import { type TableOf } from '../../world/define-table.js';
import { type achievementsTable, type secretsFoundTable } from './tables.js';

export interface Achievements extends CompiledAchievements {
  readonly cells: ReturnType<typeof achievementsTable.columnsIn>;
  readonly found: TableOf<typeof secretsFoundTable>;
  readonly tellTimer: number;
}

export interface CompiledAchievements {
  readonly entries: readonly AchievementEntry[];
  readonly list: readonly Achievement[];
  readonly players: readonly boolean[];
  readonly on: ReadonlyMap<string, readonly Achievement[]>;
  /** Those that wait for a condition. */
  readonly kept: readonly Achievement[];
}

export interface Achievement {
  readonly index: number;
  readonly id: string;
  readonly pattern: CompiledPattern | undefined;
  readonly who: NonNullable<Pattern['who']>;
  readonly count: number;
  readonly test: FormulaFunction | undefined;
  readonly ticks: number;
  readonly backwards: Amount | undefined;
  readonly then: CompiledThen;
}

/** What the achievements concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const achievements = conceptState<CompiledAchievements, Achievements>('achievements');
