import { computed, inject, Injectable, signal, type WritableSignal } from '@angular/core';
import { Api, type Players, type RoomInfo, type SeatInfo, whyGone } from '../shared/api';
import type { RoomLink } from '../seat/room-link';

/** A seat of the open room, with its own socket and copy. */
export interface OpenSeat {
  readonly name: string;
  /** How its join link stands. */
  readonly joinable: WritableSignal<SeatInfo>;
  readonly link: RoomLink;
}

interface Session {
  readonly ruleset: string;
  readonly room: string;
  readonly players: Players;
  readonly truth: RoomLink;
  readonly seats: readonly OpenSeat[];
}

/**
 * The room that this page has open. It stays open while its author is elsewhere in the workbench: the room runs on, and
 * takes what is edited meanwhile.
 */
@Injectable({ providedIn: 'root' })
export class OpenRoom {
  readonly session = signal<Session | undefined>(undefined);
  private readonly api = inject(Api);
  /** What the strip below says of it. */
  readonly status = computed(() => {
    const session = this.session();
    if (!session) return '';
    const state = session.truth.state();
    return state === 'open'
      ? `tick ${session.truth.tick()} · ${session.seats.length} seats`
      : state === 'closed'
        ? 'closed'
        : 'connecting …';
  });

  /** The room's name, where it is a room of this ruleset. */
  of(ruleset: string): string | undefined {
    const session = this.session();
    return session?.ruleset === ruleset ? session.room : undefined;
  }

  /** Opens a room with all its seats beside the truth; one that is open already stays as it is. */
  async open({ id, ruleset, players, seats }: RoomInfo): Promise<void> {
    if (this.session()?.room === id && this.session()?.truth.state() !== 'closed') return;
    // The core's client comes along only when a room is opened.
    const { RoomLink } = await import('../seat/room-link');
    this.close();
    const shutFor = () => whyGone(this.api.room(id));
    this.session.set({
      ruleset,
      room: id,
      players,
      truth: new RoomLink(RoomLink.address(id), shutFor),
      seats: seats.map((seat) => ({
        name: seat.name,
        joinable: signal(seat),
        link: new RoomLink(RoomLink.address(id, { beside: seat.name }), shutFor),
      })),
    });
  }

  /** That room is no more: it is not to be come back to. */
  left(room: string): void {
    if (this.session()?.room === room) this.close();
  }

  close(): void {
    const session = this.session();
    if (!session) return;
    session.truth.close();
    for (const seat of session.seats) seat.link.close();
    this.session.set(undefined);
  }
}
