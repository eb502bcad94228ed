import { conceptState } from '../../world/concept-state.js';
import { type Attributes } from './grip.js';
import { type CompiledAttributes } from './compile.js';

/** What the attributes concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const attributes = conceptState<CompiledAttributes, Attributes>('attributes');
