import { conceptState } from '../../world/concept-state.js';
import type { ClipEntry } from './schema.js';

/** What the clips concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const clips = conceptState<readonly ClipEntry[]>('clips');
