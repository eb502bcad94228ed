import { conceptState } from '../../world/concept-state.js';
import { type CompiledTracks } from './compile.js';
import { type divide } from './award.js';
import { type tracksTable } from './tables.js';

export interface Tracks extends CompiledTracks {
  readonly cells: ReturnType<typeof tracksTable.columnsIn>;
  /** Who had which part in a fall, from its announcement until it is heard in the same tick. */
  readonly parts: Map<string, ReturnType<typeof divide>>;
}

/** What the tracks concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const tracks = conceptState<CompiledTracks, Tracks>('tracks');
