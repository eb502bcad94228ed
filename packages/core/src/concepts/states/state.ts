import { conceptState } from '../../world/concept-state.js';
import { type CompiledStates } from './compile.js';
import { type States } from './system.js';

/** What the states concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const states = conceptState<CompiledStates, States>('states');
