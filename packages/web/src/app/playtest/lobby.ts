import { DatePipe } from '@angular/common';
import type { HttpErrorResponse } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, effect, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { Api, failureOf } from '../shared/api';
import { documentFeature } from '../store/document.reducer';

/** Playtest without a room: begin one, or go back to one. */
@Component({
  selector: 'ee-lobby',
  imports: [RouterLink, DatePipe],
  template: `
    <section>
      <h1>No room open</h1>
      <p class="lead">A room plays this ruleset on the server: the truth on the left, what each of its seats was told of it on the right.</p>
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
              @if (room.open) {
                <span class="soft">awake</span>
              }
            </li>
          }
        </ul>
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
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Lobby {
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  protected readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
  protected readonly rooms = signal<readonly { id: string; createdAt: string; open: boolean }[]>([]);
  protected readonly failure = signal('');
  protected readonly seats = ['north', 'south', 'east', 'west'];
  /** The seats whose players come together. */
  protected readonly party = signal<readonly string[]>([]);

  constructor() {
    effect(() => {
      const id = this.ruleset();
      if (id !== undefined)
        this.api.rooms(id).subscribe({
          next: (rooms) => this.rooms.set(rooms),
          error: (error: HttpErrorResponse) => this.failure.set(failureOf(error).title),
        });
    });
  }

  protected toggle(seat: string): void {
    this.party.update((party) => (party.includes(seat) ? party.filter((one) => one !== seat) : [...party, seat]));
  }

  protected async openOne(seats: number): Promise<void> {
    try {
      const { id } = await firstValueFrom(this.api.createRoom(this.ruleset()!, seats, this.party()));
      await this.router.navigate(['/r', this.ruleset(), 'playtest', id]);
    } catch (error) {
      const { title, detail } = failureOf(error as HttpErrorResponse);
      this.failure.set(`${title}. ${detail}`);
    }
  }
}
