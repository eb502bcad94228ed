import type { Logger } from 'pino';
import { isDatabaseGone } from '../database/gone.js';
import type { Room } from './room.js';
import { NotHeld, type RoomHold } from './room-hold.js';

/** The storing of a room and of what its players keep, for as long as it is ours. */
export class Storing {
  private saving: Promise<void> | undefined;
  private nextSaving: Promise<void> | undefined;
  private storedTick = -1;

  constructor(
    private readonly room: Room,
    private readonly hold: RoomHold,
    private readonly log: Logger,
    /** Whether it is to be stored at all, and what happens where it was woken elsewhere. */
    private readonly way: { readonly held: () => boolean; readonly lost: () => void },
  ) {}

  /** Has the room as it stands now be stored. One write follows the other, and at most one waits for the one under way. */
  save(): Promise<void> {
    if (this.nextSaving) return this.nextSaving;
    if (this.saving) {
      this.nextSaving = this.saving.then(() => {
        this.nextSaving = undefined;
        return this.save();
      });
      return this.nextSaving;
    }
    this.saving = this.store().finally(() => (this.saving = undefined));
    return this.saving;
  }

  /** What could not be stored is tried again at the next turn. */
  private async store(): Promise<void> {
    const { room, log } = this;
    if (!this.way.held()) return;
    const changed = room.changedPlayers();
    if (changed.length === 0 && room.tickNumber === this.storedTick) return;
    const state = room.snapshot();
    try {
      await this.hold.write(state, changed);
      this.storedTick = state.tick;
      for (const { kept } of changed) kept();
      room.tell({ t: 'stored', tick: state.tick });
      room.setTrouble('database', '');
    } catch (error) {
      if (error instanceof NotHeld) {
        log.error({ err: error, room: room.id }, 'a room is not ours any more; it ends here');
        return this.way.lost();
      }
      log[isDatabaseGone(error) ? 'warn' : 'error']({ err: error, room: room.id }, 'a room could not be stored; trying again');
      room.setTrouble(
        'database',
        isDatabaseGone(error)
          ? 'The database can’t be reached. You can play on; what happens from here on is kept once it is back.'
          : 'What happens here can’t be kept at present. It is tried again all the time.',
      );
    }
  }

  /** Whether it stands otherwise than it is stored. */
  get unsaved(): boolean {
    return this.room.tickNumber !== this.storedTick || this.room.changedPlayers().length > 0;
  }
}
