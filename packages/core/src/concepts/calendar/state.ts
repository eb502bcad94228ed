import { conceptState } from '../../world/concept-state.js';

/** What the calendar concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const calendar = conceptState('calendar');
