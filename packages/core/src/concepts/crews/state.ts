import { conceptState } from '../../world/concept-state.js';
import { type TeamRules } from '../teams/schema.js';

export interface CompiledCrews {
  readonly rules: TeamRules;
  /** The stat whose sums are compared; -1 for none. */
  readonly stat: number;
  /** Ticks between two changes. */
  readonly ticks: number;
  /** What a change is remembered as. */
  readonly purpose: number;
}

/** What the crews concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const crews = conceptState<CompiledCrews>('crews');
