import { conceptState } from '../../world/concept-state.js';
import type { CurveEntry } from './schema.js';

/** What the curves concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const curves = conceptState<readonly CurveEntry[]>('curves');
