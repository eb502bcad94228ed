import { conceptState } from '../../world/concept-state.js';

/** What the hunts concept has at hand: nothing in rules, and nothing of a world. */
export const hunts = conceptState<undefined, undefined>('hunts');
