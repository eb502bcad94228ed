import type { HttpErrorResponse } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, effect, inject, input, type OnDestroy, signal, untracked, viewChild } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import { Controls } from '../seat/controls';
import { PanelPlace } from '../seat/panel-place';
import { drawsPictures } from '../seat/pictures';
import { RoomLink } from '../seat/room-link';
import { SeatScreen } from '../seat/seat-screen';
import { SeatState } from '../seat/seat-state';
import { Api, failureOf, whyGone } from '../shared/api';
import { isTyping } from '../shared/keys';
import { Theme } from '../shared/theme';

/** One seat in a browser of its own: opened by a join link, driven by keys or by pointing. */
@Component({
  selector: 'ee-join',
  imports: [SeatScreen, PanelPlace],
  template: `
    <header>
      <img src="mark.svg" alt="" width="22" height="18" />
      @if (seat(); as seat) {
        @if (seat.link.welcome(); as welcome) {
          <b class="who">{{ welcome.seat }}</b>
          <ng-container eePanels="title" [seat]="seat" layout="whole" />
          <span class="soft">{{ welcome.ruleset }} · room {{ welcome.room }}</span>
        }
      }
    </header>
    <main>
      @if (failure()) {
        <p class="refusal" role="alert">{{ failure() }}</p>
      } @else if (seat(); as seat) {
        @if (seat.link.state() === 'lost') {
          <p class="refusal" role="alert">{{ seat.link.lostWords() }}</p>
        }
        @if (seat.link.word(); as word) {
          <p class="refusal" role="status">{{ word }}</p>
        }
        <ee-seat-screen [seat]="seat" label="The arena as your seat was told" (pointed)="seat.ask({ do: 'moveTo', x: $event.x, y: $event.y })" />
        <p class="soft">Move with W A S D or the arrow keys, or point where to go. 1 to 6 use abilities where the pointer is, X breaks off. E asks of what is near, T takes all, Q leaves, O and N answer who offers a quest, M opens your money.</p>
      } @else {
        <p class="soft" role="status">Taking your seat …</p>
      }
    </main>
  `,
  styles: `
    header {
      display: flex;
      align-items: center;
      gap: 12px;
      min-height: 44px;
      padding: 6px 16px;
      border-bottom: 1px solid var(--hair);
      flex-wrap: wrap;
    }
    .who {
      color: var(--copy);
      font-size: 15px;
    }
    main {
      display: grid;
      gap: 12px;
      max-width: 900px;
      margin: 0 auto;
      padding: 14px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    '(document:keydown)': 'key($event)',
    '(document:keyup)': 'controls.key($event, false)',
    '(window:blur)': 'controls.release()',
  },
})
export class Join implements OnDestroy {
  readonly token = input.required<string>();
  private readonly api = inject(Api);
  protected readonly theme = inject(Theme);
  private readonly screen = viewChild(SeatScreen);
  protected readonly seat = signal<SeatState | undefined>(undefined);
  protected readonly failure = signal('');
  protected readonly controls = Controls.of(() => this.seat());

  constructor() {
    effect(() => {
      const token = this.token();
      untracked(() => void this.enter(token));
    });
    drawsPictures(
      () => this.screen()?.changes(),
      () => this.paint(),
    );
  }

  private async enter(token: string): Promise<void> {
    this.leave();
    try {
      const { room } = await firstValueFrom(this.api.seat(token));
      if (token !== this.token()) return;
      this.seat.set(new SeatState(new RoomLink(RoomLink.address(room, { token }), () => whyGone(this.api.seat(token)))));
    } catch (error) {
      const { title, detail } = failureOf(error as HttpErrorResponse);
      this.failure.set(`${title}. ${detail}`);
    }
  }

  /** Returns whether somebody is still on their way in the picture. */
  private paint(): boolean {
    const screen = this.screen();
    screen?.paint();
    return screen?.moving ?? false;
  }

  protected key(event: KeyboardEvent): void {
    if (this.controls.key(event, true) || event.repeat || event.ctrlKey || event.metaKey || event.altKey || isTyping(event)) return;
    this.seat()?.key(event.key.toLowerCase());
  }

  private leave(): void {
    this.seat()?.link.close();
    this.seat.set(undefined);
    this.failure.set('');
  }

  ngOnDestroy(): void {
    this.leave();
  }
}
