import { conceptState } from '../../world/concept-state.js';
import { type TableOf } from '../../world/define-table.js';
import { type seatsTable } from './tables.js';

/** What the seats concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const seats = conceptState<undefined, { readonly table: TableOf<typeof seatsTable> }>('seats');
