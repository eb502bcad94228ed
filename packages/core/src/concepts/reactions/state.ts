import { conceptState } from '../../world/concept-state.js';
import { type CompiledPattern, type CompiledThen } from '../../ruleset/context.js';
import { type Pattern } from '../../ruleset/registry.js';

export interface Reactions {
  readonly list: readonly Reaction[];
  /** By the event that they wait for, in the order of the chapter, then of actors, then of effects. */
  readonly on: ReadonlyMap<string, readonly Reaction[]>;
}

export interface Reaction {
  readonly bearer: Bearer;
  readonly pattern: CompiledPattern;
  /** The part of the event that its bearer plays. */
  readonly who: NonNullable<Pattern['who']>;
  readonly then: CompiledThen;
  readonly purpose: number;
  /** What its steps are counted for. */
  readonly rule: number;
  readonly times: number;
  readonly ticks: number;
  readonly perActor: boolean;
}

/** Whose a reaction is: the ruleset's, a kind of actor's, or of whoever has an effect on. */
export type Bearer = { readonly of: 'all' } | { readonly of: 'actors' | 'effects'; readonly index: number };

/** What the reactions concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const reactions = conceptState<Reactions>('reactions');
