import { conceptState } from '../../world/concept-state.js';
import { type Abilities } from './tables.js';
import { type CompiledAbilities } from './compile.js';

/** What the abilities concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const abilities = conceptState<CompiledAbilities, Abilities>('abilities');
