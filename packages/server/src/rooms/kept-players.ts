import {
  actorOfSeat,
  followSaved,
  keepsNames,
  loadPlayer,
  mergeSaved,
  type Rules,
  savePlayer,
  type SavedPlayer,
  unplacedOf,
  type World,
} from '@eager-ember/core';

/** Something of a player that is not stored yet. Call `kept` once it is. */
export interface ChangedPlayer {
  readonly name: string;
  readonly saved: SavedPlayer;
  readonly kept: () => void;
}

/** What a room keeps of the players in its seats: as it was last stored, and what of that today's rules have no place for. */
export class KeptPlayers {
  private readonly stored = new Map<string, string>();
  /** What the rules of now have no place for, by player, once it was asked for. */
  private readonly unplaced = new Map<string, SavedPlayer>();

  constructor(
    private readonly names: readonly string[],
    saved: ReadonlyMap<string, SavedPlayer>,
  ) {
    for (const [name, one] of saved) this.stored.set(name, JSON.stringify(one));
  }

  of(seat: string): SavedPlayer | undefined {
    const text = this.stored.get(seat);
    return text === undefined ? undefined : (JSON.parse(text) as SavedPlayer);
  }

  /** Gives a player of a world that stood still what another room has stored of them since. */
  catchUp(world: World, seat: string, saved: SavedPlayer | undefined): void {
    const row = world.actors.rowOf(actorOfSeat(world, seat));
    if (row >= 0 && saved && JSON.stringify(savePlayer(world, row)) !== JSON.stringify(saved)) loadPlayer(world, row, saved);
  }

  /** What is kept goes by the new names; what had no place under the old rules and has one again comes back. */
  follow(world: World, before: Rules): void {
    // Most edits leave all names as they are.
    if (keepsNames(before, world.rules)) return;
    for (const name of this.names) {
      const kept = this.of(name);
      if (!kept) continue;
      this.stored.set(name, JSON.stringify(followSaved(before, world.rules, kept)));
      const unplaced = unplacedOf(before, kept);
      const row = world.actors.rowOf(actorOfSeat(world, name));
      if (row >= 0 && Object.keys(unplaced).length > 0) loadPlayer(world, row, unplaced);
    }
    this.unplaced.clear();
  }

  /** What players have now counts as stored. */
  settle(world: World): void {
    for (const { kept } of this.changed(world)) kept();
  }

  /** The players who have something else now than was last stored of them. */
  changed(world: World): readonly ChangedPlayer[] {
    return [...this.now(world)].flatMap(([name, saved]) => {
      const text = JSON.stringify(saved);
      return this.stored.get(name) === text ? [] : [{ name, saved, kept: () => void this.stored.set(name, text) }];
    });
  }

  private *now(world: World): Iterable<readonly [string, SavedPlayer]> {
    for (const name of this.names) {
      const row = world.actors.rowOf(actorOfSeat(world, name));
      if (row < 0) continue;
      // What these rules have no place for is kept for the day that a deletion is undone.
      yield [name, mergeSaved(this.unplacedOf(world.rules, name), savePlayer(world, row))];
    }
  }

  private unplacedOf(rules: Rules, name: string): SavedPlayer {
    const known = this.unplaced.get(name) ?? unplacedOf(rules, this.of(name) ?? {});
    this.unplaced.set(name, known);
    return known;
  }
}
