import type { Rules } from '../ruleset/rules.js';
import type { GameEvent } from './events.js';
import type { World } from './world.js';

/** Something found in a world that must never be. */
export interface Breach {
  /** What was found, in a sentence. */
  readonly says: string;
  /** Whose it is; empty where it is nobody's. */
  readonly who: string;
  /** The serial of the event that it goes back to; 0 where none is known. */
  readonly cause?: number;
  /** The actor and the attribute whose value it is about. */
  readonly about?: { readonly actor: number; readonly attribute: string };
}

/** Looks on as one game runs, over restarts of it as well: who is spoken of goes by name. */
export interface InvariantWatch {
  onEvent?(world: World, event: GameEvent): Breach | undefined;
  /** After each tick. */
  onTick?(world: World): Breach | undefined;
  /** Once, when a run has come to its end. */
  atEnd?(world: World): Breach | undefined;
  /** Ticks that it has to see more of, before the run is at its end. */
  waitsFor?(world: World): number;
}

/** What holds of any sound ruleset, whatever happens. */
export interface Invariant {
  /** It in a sentence, as `nobody has more than they can have`. */
  readonly label: string;
  readonly watch: (rules: Rules) => InvariantWatch;
}
