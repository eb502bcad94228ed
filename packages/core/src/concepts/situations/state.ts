import { conceptState } from '../../world/concept-state.js';

/** What the situations concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const situations = conceptState<undefined, undefined>('situations');
