import { conceptState } from '../../world/concept-state.js';
import { type CompiledEffects } from './compile.js';
import { type Effects } from './system.js';

/** What the effects concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const effects = conceptState<CompiledEffects, Effects>('effects');
