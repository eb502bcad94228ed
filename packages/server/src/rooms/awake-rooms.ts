import type { AwakeRoom } from './awake-room.js';

/** A room was to be awake twice: its world would part in two, and only one of them would be kept. */
export class TwoWorlds extends Error {
  constructor(id: string) {
    super(`Room ${id} is awake already, and was to be woken again.`);
  }
}

/** The rooms of this process that are awake. What is in here ticks and is stored, and nothing else; a room is in here once. */
export class AwakeRooms implements Iterable<AwakeRoom> {
  private readonly byId = new Map<string, AwakeRoom>();

  /** @throws TwoWorlds where a room of that id is awake */
  enter(room: AwakeRoom): void {
    if (this.byId.has(room.id)) throw new TwoWorlds(room.id);
    this.byId.set(room.id, room);
  }

  /** Takes out this very room: one of the same id that was woken since stays. */
  leave(room: AwakeRoom): void {
    if (this.holds(room)) this.byId.delete(room.id);
  }

  holds(room: AwakeRoom): boolean {
    return this.byId.get(room.id) === room;
  }

  get(id: string): AwakeRoom | undefined {
    return this.byId.get(id);
  }

  /** Those of a ruleset. */
  of(rulesetId: string): readonly AwakeRoom[] {
    return [...this.byId.values()].filter(({ room }) => room.rulesetId === rulesetId);
  }

  get size(): number {
    return this.byId.size;
  }

  *[Symbol.iterator](): Iterator<AwakeRoom> {
    yield* [...this.byId.values()];
  }
}
