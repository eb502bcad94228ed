import { conceptState } from '../../world/concept-state.js';
import { type Movement } from './system.js';

/** What the movement concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const movement = conceptState<undefined, Movement>('movement');
