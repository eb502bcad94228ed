import { Clipboard } from '@angular/cdk/clipboard';
import { DatePipe } from '@angular/common';
import type { HttpErrorResponse } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { firstValueFrom, type Observable } from 'rxjs';
import { Api, failureOf, type SeatInfo } from '../shared/api';
import type { OpenSeat } from './open-room';

/** The join link of a seat: to be passed on, replaced by a new one, or ended. */
@Component({
  selector: 'ee-join-link',
  imports: [DatePipe, MatMenuModule],
  template: `
    <button type="button" class="act" [matMenuTriggerFor]="menu" [attr.aria-label]="'Join link of ' + seat().name">{{ failure() || done() || 'Join link' }} <span aria-hidden="true">▾</span></button>
    <mat-menu #menu="matMenu">
      @if (link(); as address) {
        <button mat-menu-item (click)="copy(address)">Copy it <span class="soft">opens this seat until {{ seat().joinable().until | date: 'd MMM' }}</span></button>
        <button mat-menu-item (click)="change('renewed')">Replace it <span class="soft">who came by it has to go</span></button>
        <button mat-menu-item (click)="change('ended')">End it</button>
      } @else {
        <button mat-menu-item (click)="change('renewed')">Make one <span class="soft">this seat has none</span></button>
      }
    </mat-menu>
  `,
  styles: `
    button.act {
      font: inherit;
      font-weight: 650;
    }
    .soft {
      margin-left: 6px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class JoinLink {
  readonly room = input.required<string>();
  readonly seat = input.required<OpenSeat>();
  private readonly api = inject(Api);
  private readonly clipboard = inject(Clipboard);
  protected readonly failure = signal('');
  /** What was last done with it. */
  protected readonly done = signal('');
  protected readonly link = computed(() => {
    const { join } = this.seat().joinable();
    return join === null ? undefined : new URL(join, location.href).href;
  });

  protected copy(address: string): void {
    this.clipboard.copy(address);
    this.say('Copied');
  }

  protected async change(to: 'renewed' | 'ended'): Promise<void> {
    const change: Observable<SeatInfo> =
      to === 'renewed' ? this.api.renewLink(this.room(), this.seat().name) : this.api.endLink(this.room(), this.seat().name);
    try {
      const after = await firstValueFrom(change);
      this.seat().joinable.set(after);
      if (after.join === null) return this.say('Ended');
      this.clipboard.copy(new URL(after.join, location.href).href);
      this.say('New, copied');
    } catch (error) {
      this.done.set('');
      this.failure.set(failureOf(error as HttpErrorResponse).title);
    }
  }

  private say(words: string): void {
    this.failure.set('');
    this.done.set(words);
  }
}
