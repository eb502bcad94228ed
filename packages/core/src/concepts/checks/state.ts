import { conceptState } from '../../world/concept-state.js';

/** What the checks concept has at hand: nothing in rules, and nothing of a world. */
export const checks = conceptState<undefined, undefined>('checks');
