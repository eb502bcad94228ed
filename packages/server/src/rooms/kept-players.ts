import {
  actorOfSeat,
  followSaved,
  keepsNames,
  loadPlayer,
  type Rules,
  savedParts,
  savePlayer,
  type SavedPlayer,
  unplacedOf,
  type World,
} from '@eager-ember/core';

/** Something of a player that is not stored yet. Call `kept` once it is. */
export interface ChangedPlayer {
  readonly name: string;
  /** All that is kept of them, as JSON. */
  readonly text: string;
  readonly kept: () => void;
}

/** What is kept of a player as it was when it was last looked at. Of thousands of cells a few are others each time. */
interface Looked {
  /** By table: its cells, and these as JSON; empty where there is nothing. */
  readonly parts: { readonly cells: Float64Array; text: string }[];
  /** All of it, as JSON. */
  text: string;
}

/** What a room keeps of the players in its seats: as it was last stored, and what of that today's rules have no place for. */
export class KeptPlayers {
  /** As JSON, by the names of their seats. */
  private readonly stored = new Map<string, string>();
  /** What the rules of now have no place for, by player, once it was asked for. */
  private readonly unplaced = new Map<string, SavedPlayer>();
  /** As long as all that is kept is called the same. */
  private readonly looked = new Map<string, Looked>();

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
    this.looked.clear();
  }

  /** What players have now counts as stored. */
  settle(world: World): void {
    for (const { kept } of this.changed(world)) kept();
  }

  /** The players who have something else now than was last stored of them. */
  changed(world: World): readonly ChangedPlayer[] {
    const changed: ChangedPlayer[] = [];
    for (const name of this.names) {
      const row = world.actors.rowOf(actorOfSeat(world, name));
      if (row < 0) continue;
      const text = this.look(world, row, name);
      if (this.stored.get(name) !== text) changed.push({ name, text, kept: () => void this.stored.set(name, text) });
    }
    return changed;
  }

  /** What is kept of a player now, as JSON: what is the same as the last time is not put in words again. */
  private look(world: World, row: number, name: string): string {
    const parts = savedParts(world);
    const before = this.looked.get(name);
    const own = before ?? {
      parts: parts.map(({ columns }) => ({ cells: new Float64Array(columns.length).fill(NaN), text: '' })),
      text: '',
    };
    const others = parts.map((part, i) => (part.note(row, own.parts[i].cells) ? i : -1)).filter((i) => i >= 0);
    if (before && others.length === 0) return own.text;
    // What these rules have no place for is kept for the day that a deletion is undone.
    const unplaced = this.unplacedOf(world.rules, name);
    const said = (table: string, cells: SavedPlayer[string]) =>
      `${JSON.stringify(table)}:${JSON.stringify({ ...unplaced[table], ...cells })}`;
    for (const i of others) {
      const cells = parts[i].of(world.rules, row);
      own.parts[i].text = cells ? said(parts[i].table, cells) : '';
    }
    const missing = Object.keys(unplaced).filter((table) => !parts.some((part, i) => part.table === table && own.parts[i].text !== ''));
    own.text = `{${[...own.parts.map(({ text }) => text).filter((text) => text !== ''), ...missing.map((table) => said(table, {}))].join(',')}}`;
    this.looked.set(name, own);
    return own.text;
  }

  private unplacedOf(rules: Rules, name: string): SavedPlayer {
    const known = this.unplaced.get(name) ?? unplacedOf(rules, this.of(name) ?? {});
    this.unplaced.set(name, known);
    return known;
  }
}
