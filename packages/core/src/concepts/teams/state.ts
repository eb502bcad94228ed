import { conceptState } from '../../world/concept-state.js';
import { type TeamEntry } from './schema.js';

/** What the teams concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const teams = conceptState<readonly TeamEntry[]>('teams');
