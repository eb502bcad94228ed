import type { HttpErrorResponse } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, effect, inject, input, type OnDestroy, signal, untracked, viewChild } from '@angular/core';
import type { Announcement } from '@eager-ember/core';
import { firstValueFrom } from 'rxjs';
import { ArenaView } from '../playtest/arena-view';
import { Controls } from '../playtest/controls';
import { hudOf, type HudView, teamOf } from '../playtest/display';
import { Flourishes } from '../playtest/flourishes';
import { Hud } from '../playtest/hud';
import { RoomLink } from '../playtest/room-link';
import { Api, failureOf } from '../shared/api';
import { Theme } from '../shared/theme';

/** One seat in a browser of its own: opened by a join link, driven by keys or by pointing. */
@Component({
  selector: 'ee-join',
  imports: [ArenaView, Flourishes, Hud],
  template: `
    <header>
      <img src="mark.svg" alt="" width="22" height="18" />
      @if (link()?.welcome(); as welcome) {
        <b class="who">{{ welcome.seat }}</b>
        @if (team()) {
          <span class="soft">crew {{ team() }}</span>
        }
        <span class="soft">{{ welcome.ruleset }} · room {{ welcome.room }}</span>
      }
    </header>
    <main>
      @if (failure()) {
        <p class="refusal" role="alert">{{ failure() }}</p>
      } @else if (link()) {
        @if (link()!.state() === 'lost') {
          <p class="refusal" role="alert">The connection is lost. Trying to get back …</p>
        }
        <div class="screen">
          <ee-arena label="The arena as your seat was told" [marked]="link()!.welcome()?.row" (pointed)="link()!.ask({ do: 'moveTo', x: $event.x, y: $event.y })" />
          <ee-flourishes [now]="flourishes()" />
        </div>
        @if (refusal()) {
          <p class="refusal" role="alert">{{ refusal() }}</p>
        }
        <ee-hud [view]="hud()" (use)="link()!.ask({ do: 'use', ability: $event })" />
        <p class="soft">Move with W A S D or the arrow keys, or point where to go. 1 to 6 use abilities.</p>
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
    .screen {
      position: relative;
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
    '(document:keydown)': 'controls.key($event, true)',
    '(document:keyup)': 'controls.key($event, false)',
    '(window:blur)': 'controls.release()',
  },
})
export class Join implements OnDestroy {
  readonly token = input.required<string>();
  private readonly api = inject(Api);
  protected readonly theme = inject(Theme);
  private readonly arena = viewChild(ArenaView);
  protected readonly link = signal<RoomLink | undefined>(undefined);
  protected readonly hud = signal<HudView | undefined>(undefined);
  protected readonly team = signal('');
  protected readonly refusal = signal('');
  protected readonly failure = signal('');
  protected readonly flourishes = signal<readonly Announcement[]>([]);
  protected readonly controls = new Controls(
    (input) => this.link()?.ask(input),
    () => this.hud()?.abilities.map((ability) => ability.id) ?? [],
  );
  private picture = 0;
  private frames = -1;

  constructor() {
    effect(() => {
      const token = this.token();
      untracked(() => void this.enter(token));
    });
  }

  private async enter(token: string): Promise<void> {
    try {
      const { room } = await firstValueFrom(this.api.seat(token));
      this.link.set(new RoomLink(RoomLink.address(room, { token, beside: false })));
      this.picture = requestAnimationFrame(() => this.paint());
    } catch (error) {
      const { title, detail } = failureOf(error as HttpErrorResponse);
      this.failure.set(`${title}. ${detail}`);
    }
  }

  private paint(): void {
    this.picture = requestAnimationFrame(() => this.paint());
    const link = this.link();
    const row = link?.welcome()?.row;
    if (!link?.copy || row === undefined) return;
    this.arena()?.draw(link.copy);
    if (link.frames === this.frames) return;
    this.frames = link.frames;
    const { copy } = link;
    const shown = link.flourishes();
    if (shown.length > 0 || this.flourishes().length > 0) this.flourishes.set(shown);
    this.hud.set(hudOf(copy, row));
    this.team.set(teamOf(copy, row)?.label ?? '');
    this.refusal.set(link.refusal());
  }

  ngOnDestroy(): void {
    cancelAnimationFrame(this.picture);
    this.link()?.close();
  }
}
