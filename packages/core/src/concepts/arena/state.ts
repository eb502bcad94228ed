import { conceptState } from '../../world/concept-state.js';
import { type Arena } from './schema.js';

/** What the arena concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const arena = conceptState<Arena>('arena');
