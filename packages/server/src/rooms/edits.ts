import type { Time } from './time.js';

/** Rules of a ruleset after an edit. */
interface Edited {
  readonly rulesetId: string;
  readonly revision: number;
}

/** A room as far as it has to do with edits. */
export interface Follower<E extends Edited> {
  /** Under which revision it runs, or is about to. */
  readonly revision: number;
  readonly watchedByAuthor: boolean;
  edited(edited: E): void;
}

/** How long others wait once a room was given edited rules: to take them over takes longer than a tick does. */
const BETWEEN_MS = 25;

/** Gives rooms the rules that were edited: one room after the other, so that none has to wait for all others to take them over. */
export class Edits<E extends Edited> {
  private readonly latest = new Map<string, E>();

  constructor(
    private readonly roomsOf: (rulesetId: string) => readonly Follower<E>[],
    private readonly time: Time,
  ) {}

  /** Has the rooms of a ruleset go by edited rules, those first whose author looks at them. Of several edits the last one counts. */
  give(edited: E): void {
    const { rulesetId, revision } = edited;
    const before = this.latest.get(rulesetId);
    if (before && before.revision >= revision) return;
    this.latest.set(rulesetId, edited);
    // Where others are waiting for their turn already, they are given these.
    if (!before) this.next(rulesetId);
  }

  private next(rulesetId: string): void {
    const edited = this.latest.get(rulesetId)!;
    const [first, ...others] = this.roomsOf(rulesetId)
      .filter(({ revision }) => revision < edited.revision)
      .sort((one, other) => Number(other.watchedByAuthor) - Number(one.watchedByAuthor) || one.revision - other.revision);
    first?.edited(edited);
    if (others.length > 0) this.time.after(BETWEEN_MS, () => this.next(rulesetId));
    else this.latest.delete(rulesetId);
  }
}
