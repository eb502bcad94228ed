import { DatePipe } from '@angular/common';
import type { HttpErrorResponse } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, effect, inject, signal, untracked } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { Api, failureOf, type Players, type RoomSummary } from '../shared/api';
import { documentFeature } from '../store/document.reducer';
import { OpenRoom } from './open-room';

/** Playtest without a room: begin one, or go back to one. */
@Component({
  selector: 'ee-lobby',
  imports: [RouterLink, DatePipe],
  template: `
    <section>
      <h1>No room open</h1>
      <p class="lead">A room plays this ruleset on the server: the truth on the left, what each of its seats was told of it on the right.</p>
      <p class="players" role="radiogroup" aria-label="Players">
        @for (kind of kinds; track kind.players) {
          <label><input type="radio" name="players" [checked]="players() === kind.players" (change)="players.set(kind.players)" /> {{ kind.label }} <span class="soft">{{ kind.words }}</span></label>
        }
      </p>
      <p class="begin">
        <button type="button" class="act" (click)="openOne(2)">Play with two seats</button>
        <button type="button" class="act" (click)="openOne(4)">Play with four seats</button>
      </p>
      <p class="party">
        <span class="soft">A party, kept together in one crew while there is room:</span>
        @for (seat of seats; track seat) {
          <button type="button" role="checkbox" [attr.aria-checked]="party().includes(seat)" (click)="toggle(seat)">{{ party().includes(seat) ? '☑' : '☐' }} {{ seat }}</button>
        }
      </p>
      @if (failure()) {
        <p class="refusal" role="alert">{{ failure() }}</p>
      }
      @if (rooms().length > 0) {
        <h2>Earlier rooms</h2>
        <ul>
          @for (room of rooms(); track room.id) {
            <li>
              <a class="act" [routerLink]="['/r', ruleset(), 'playtest', room.id]">{{ room.id }}</a> <span class="soft mono">{{ room.createdAt | date: 'd MMM, HH:mm' }}</span>
              @if (room.players === 'saved') {
                <span class="soft">saved players</span>
              }
              @if (room.open) {
                <span class="soft">awake</span>
              }
              @if (closing() === room.id) {
                <span class="sure" role="alertdialog" [attr.aria-label]="'Close room ' + room.id">
                  {{ room.players === 'saved' ? 'Its join links end with it; what its players have is kept.' : 'Its join links end with it, and what its guests have.' }} <button type="button" class="act" (click)="close(room.id)">Close it</button>
                  <button type="button" class="soft" (click)="closing.set('')">Keep it</button>
                </span>
              } @else {
                <button type="button" class="soft" [attr.aria-label]="'Close room ' + room.id" (click)="closing.set(room.id)">close</button>
              }
            </li>
          }
        </ul>
        @if (next()) {
          <p><button type="button" class="act" (click)="more()">Show more</button></p>
        }
      }
    </section>
  `,
  styles: `
    section {
      padding: 60px 40px;
      max-width: 720px;
    }
    h1 {
      font: 600 28px var(--serif);
    }
    .lead {
      font: 18px/1.5 var(--serif);
      margin: 8px 0 16px;
    }
    .begin {
      display: flex;
      gap: 24px;
    }
    .party {
      display: flex;
      flex-wrap: wrap;
      gap: 2px 14px;
      margin-top: 10px;
      font-size: 13px;
    }
    .players {
      display: grid;
      gap: 2px;
      justify-items: start;
      margin-bottom: 14px;
      font-size: 13px;
      accent-color: var(--ember);
    }
    .players input {
      margin: 0 5px 0 0;
      vertical-align: -2px;
    }
    .sure {
      display: flex;
      gap: 14px;
    }
    .party [aria-checked='true'] {
      color: var(--ember);
    }
    h2 {
      font-size: 13.5px;
      margin: 32px 0 8px;
    }
    li {
      padding: 4px 0;
      display: flex;
      gap: 16px;
      align-items: baseline;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Lobby {
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly openRoom = inject(OpenRoom);
  protected readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
  protected readonly rooms = signal<readonly RoomSummary[]>([]);
  /** Where the part of the list begins that is not shown yet. */
  protected readonly next = signal<string | null>(null);
  /** The room that is asked about whether it is to be closed. */
  protected readonly closing = signal('');
  protected readonly failure = signal('');
  protected readonly seats = ['north', 'south', 'east', 'west'];
  protected readonly kinds: readonly { readonly players: Players; readonly label: string; readonly words: string }[] = [
    { players: 'guests', label: 'Fresh guests', words: 'begin as the rules say, and keep nothing beyond the room' },
    { players: 'saved', label: 'Saved players', words: 'go on with what they have kept' },
  ];
  protected readonly players = signal<Players>('guests');
  /** The seats whose players come together. */
  protected readonly party = signal<readonly string[]>([]);

  constructor() {
    effect(() => {
      if (this.ruleset() === undefined) return;
      untracked(() => {
        this.rooms.set([]);
        this.next.set(null);
        void this.more();
      });
    });
  }

  /** Shows the next part of the list. */
  protected async more(): Promise<void> {
    try {
      const { items, next } = await firstValueFrom(this.api.rooms(this.ruleset()!, this.next()));
      this.rooms.update((rooms) => [...rooms, ...items]);
      this.next.set(next);
    } catch (error) {
      this.tell(error as HttpErrorResponse);
    }
  }

  private tell(error: HttpErrorResponse): void {
    const { title, detail } = failureOf(error);
    this.failure.set(detail === '' ? title : `${title}. ${detail}`);
  }

  protected async close(room: string): Promise<void> {
    try {
      await firstValueFrom(this.api.closeRoom(room));
      this.rooms.update((rooms) => rooms.filter(({ id }) => id !== room));
      this.failure.set('');
      this.openRoom.left(room);
    } catch (error) {
      this.tell(error as HttpErrorResponse);
    }
    this.closing.set('');
  }

  protected toggle(seat: string): void {
    this.party.update((party) => (party.includes(seat) ? party.filter((one) => one !== seat) : [...party, seat]));
  }

  protected async openOne(seats: number): Promise<void> {
    try {
      const { id } = await firstValueFrom(this.api.createRoom(this.ruleset()!, seats, this.party(), this.players()));
      await this.router.navigate(['/r', this.ruleset(), 'playtest', id]);
    } catch (error) {
      this.tell(error as HttpErrorResponse);
    }
  }
}
