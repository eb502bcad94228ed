import type { Logger } from 'pino';
import type { AwakeRooms } from './awake-rooms.js';
import { Clock } from './clock.js';
import type { Client, Goodbye } from './client.js';
import type { Room } from './room.js';
import { Share } from './share.js';
import type { RoomHold } from './room-hold.js';
import { Storing } from './storing.js';
import type { Time, Waiting } from './time.js';

/** How often a room and its changed players are stored. What a crash can lose is less than this. */
const SAVE_EVERY_MS = 500;
/** How often a room is told what time it is. */
const CLOCK_EVERY_MS = 10_000;
/** How long a room that nobody looks at is held ready; after that it is read again as it was stored. */
export const ASLEEP_MS = 10 * 60_000;

export interface Measures {
  tickSeconds(seconds: number): void;
  lateSeconds(seconds: number): void;
}

/** What a room that is awake needs of what is around it. */
export interface Surroundings {
  /** The rooms that are awake, of which it becomes one. */
  readonly all: AwakeRooms;
  readonly time: Time;
  readonly measures: Measures;
  readonly log: Logger;
  /** Told that nobody has looked at it for long. */
  readonly forgotten: (room: AwakeRoom) => void;
}

/**
 * A room that is awake: its world, its clock, and the storing of both. It is among the rooms that are awake from its
 * beginning to its end; after that nothing of it runs, and nothing of it is stored.
 */
export class AwakeRoom {
  private readonly clock: Clock;
  private readonly share: Share;
  private readonly storing: Storing;
  private lastSave = 0;
  private lastClock = 0;
  private sleep: Waiting | undefined;
  private ending = false;

  /** @throws TwoWorlds where a room of that id is awake already */
  constructor(
    readonly room: Room,
    private readonly hold: RoomHold,
    private readonly around: Surroundings,
  ) {
    around.all.enter(this);
    this.clock = new Clock(
      () => room.ticksPerSecond,
      () => this.tick(),
      (ms) => around.measures.lateSeconds(ms / 1000),
      around.time,
      () => this.share.rest,
    );
    this.share = new Share(around.time);
    this.storing = new Storing(room, hold, around.log, {
      held: () => around.all.holds(this),
      lost: () => this.abandon({ message: 'This room goes on elsewhere.', how: 'later' }),
    });
    room.repaced = () => {
      this.share.forgive();
      this.clock.repace();
    };
    // Somebody is about to come; where they do not, it goes to sleep again.
    this.waitForSleep();
  }

  get id(): string {
    return this.room.id;
  }

  /** Whether guests play in it, and not the ruleset's saved players. */
  get ofGuests(): boolean {
    return this.hold.ofGuests;
  }

  /** Whether somebody can come in right away. */
  get ready(): boolean {
    return !this.ending && this.around.all.holds(this);
  }

  connect(client: Client): void {
    this.sleep?.cancel();
    this.room.connect(client);
    this.clock.start();
  }

  /** A room that nobody looks at stands still, and is woken by the next one who comes. */
  async disconnect(client: Client): Promise<void> {
    if (!this.room.disconnect(client) || this.room.watched || !this.around.all.holds(this)) return;
    this.clock.stop();
    this.waitForSleep();
    await this.save();
  }

  private waitForSleep(): void {
    this.sleep?.cancel();
    this.sleep = this.around.time.after(ASLEEP_MS, () => this.around.forgotten(this));
  }

  private tick(): void {
    const { time, measures, log } = this.around;
    const began = time.now();
    // Asking the machine what it has worked takes as long as a small tick does: it is asked where much was taken lately.
    const worked = this.share.isScant ? time.worked() : undefined;
    if (began - this.lastClock >= CLOCK_EVERY_MS) {
      this.lastClock = began;
      this.room.setClock();
    }
    try {
      this.room.tick();
    } catch (error) {
      log.error({ err: error, room: this.id }, 'a tick failed; the room is closed');
      return this.abandon({ message: 'The room failed and was closed. What players keep was stored before.', how: 'final' });
    }
    const took = time.now() - began;
    measures.tickSeconds(took / 1000);
    // A machine that has other things to do as well takes longer for the same: that is not the room's doing.
    this.keepToShare(worked === undefined ? took : Math.min(took, time.worked() - worked));
    if (began - this.lastSave >= SAVE_EVERY_MS) {
      this.lastSave = began;
      void this.save();
    }
  }

  /** A room that takes more than its share of the processor is slowed, and in the end stands still: others keep their time. */
  private keepToShare(took: number): void {
    const { room, share } = this;
    share.take(took, 1000 / room.ticksPerSecond);
    if (share.exhausted) {
      room.run(0);
      room.setTrouble(
        'share',
        'This room asked more of the server than its share for too long, and stands still. Change its rules, then set it going again.',
      );
    } else if (share.heldBack)
      room.setTrouble('share', 'This room asks more of the server than its share, and runs slower than it should.');
    else room.setTrouble('share', '');
  }

  /** Has the room as it stands now be stored. */
  save(): Promise<void> {
    return this.storing.save();
  }

  /**
   * Stores it a last time and has it sleep, whoever is there. Where it can't be stored it stays awake.
   * @param goodbye what those who are there are told
   * @returns whether it ended
   */
  async end(goodbye?: Goodbye): Promise<boolean> {
    this.ending = true;
    this.clock.stop();
    if (goodbye) this.room.dismissAll(goodbye);
    await this.save();
    if (this.around.all.holds(this) && this.storing.unsaved) {
      this.ending = false;
      if (this.room.watched) this.clock.start();
      else this.waitForSleep();
      return false;
    }
    this.leave();
    return true;
  }

  /** Ends it as it is, without storing it again. */
  abandon(goodbye: Goodbye): void {
    this.leave();
    this.room.dismissAll(goodbye);
  }

  private leave(): void {
    this.ending = true;
    this.clock.stop();
    this.sleep?.cancel();
    this.around.all.leave(this);
  }
}
