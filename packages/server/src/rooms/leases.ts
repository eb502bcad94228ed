import { Mutex } from 'async-mutex';
import { PlayersElsewhere } from '../errors.js';
import type { AwakeRoom } from './awake-room.js';
import type { AwakeRooms } from './awake-rooms.js';

/** Which room plays which saved players: nobody plays in two rooms at once. */
export class Leases {
  private readonly turns = new Map<string, Mutex>();

  constructor(private readonly awake: AwakeRooms) {}

  /**
   * One after the other for each ruleset: two rooms that ask for the same player at once do not both get them. Nothing that
   * waits for people is done in a turn.
   */
  async inTurn<T>(rulesetId: string, work: () => Promise<T>): Promise<T> {
    const turns = this.turns.get(rulesetId) ?? new Mutex();
    this.turns.set(rulesetId, turns);
    try {
      return await turns.runExclusive(work);
    } finally {
      if (!turns.isLocked()) this.turns.delete(rulesetId);
    }
  }

  /** Works on what is kept of players while no room plays them, nor can begin to. @throws PlayersElsewhere */
  withPlayers<T>(rulesetId: string, names: readonly string[], work: () => Promise<T>): Promise<T> {
    return this.inTurn(rulesetId, async () => {
      await this.free(
        rulesetId,
        names,
        true,
        `${names.join(' and ')} ${names.length === 1 ? 'is' : 'are'} changed from outside; the room goes on in a moment.`,
      );
      return work();
    });
  }

  /**
   * Has no room play these players: one that nobody looks at is stored and sleeps, and so does one with guests only, where
   * somebody asks who is signed in.
   * @param words what guests are told
   */
  async free(rulesetId: string, names: readonly string[], signedIn: boolean, words: string): Promise<void> {
    for (const other of this.withSavedPlayers(rulesetId)) {
      const shared = names.filter((name) => other.room.seats.some((seat) => seat.name === name));
      if (shared.length === 0) continue;
      const inTheWay = signedIn ? other.room.watchedByAuthor : other.room.watched;
      if (inTheWay || !(await other.end({ message: words, how: 'later' }))) throw new PlayersElsewhere(shared, other.id);
    }
  }

  /** Those of them in which saved players play; guests are in nobody's way. */
  private withSavedPlayers(rulesetId: string): readonly AwakeRoom[] {
    return this.awake.of(rulesetId).filter(({ ofGuests }) => !ofGuests);
  }

  /** Who of a ruleset's players is played just now, each with the id of the room. */
  players(rulesetId: string): ReadonlyMap<string, string> {
    return new Map(
      this.withSavedPlayers(rulesetId)
        .filter(({ room }) => room.watched)
        .flatMap(({ id, room }) => room.seats.map(({ name }) => [name, id] as const)),
    );
  }
}
