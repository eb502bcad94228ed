import type { GameEvent } from './events.js';

/** What a world notes of how it runs, for who looks on. */
export interface Ran {
  /** The places of actions, as chapter/id and the way from there. */
  readonly places: Set<string>;
  /** Is told of each event as it is announced, and of the rule that is at work, as chapter/id; none for what no rule does. */
  noteRule(event: GameEvent, rule: string | undefined): void;
}
