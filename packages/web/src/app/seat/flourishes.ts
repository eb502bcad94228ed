import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Announcement } from '@eager-ember/core';
import type { SeatPanel } from './panel';

/**
 * Stand-ins for what a game's client would show and sound: texts, the ids of sounds, a frame that shakes, a veil that
 * fades. Nobody's rules depend on them.
 */
@Component({
  selector: 'ee-flourishes',
  template: `
    @if (fade() > 0) {
      <div class="veil" [style.animation-duration.s]="fade()"></div>
    }
    <ul aria-live="polite" aria-label="Shown to the player" [class.shakes]="shake() > 0" [style.animation-duration.s]="shake()">
      @for (item of now(); track item.serial) {
        <li>
          @if (item.event === 'achievementUnlocked') {
            <b>{{ item.text }}</b> <span>{{ item.data['points'] }} points</span>
          } @else if (item.data['text']; as text) {
            <b>{{ text }}</b>
          }
          @if (item.data['sound']; as sound) {
            <span class="mono">♪ {{ sound }}</span>
          }
          @if (item.data['shake']) {
            <span>shakes</span>
          }
          @if (item.data['fade']) {
            <span>fades</span>
          }
        </li>
      }
    </ul>
  `,
  styles: `
    :host {
      position: absolute;
      inset: 0;
      pointer-events: none;
      overflow: hidden;
    }
    ul {
      position: absolute;
      left: 8px;
      top: 8px;
      display: grid;
      gap: 4px;
      justify-items: start;
    }
    li {
      display: flex;
      gap: 8px;
      background: var(--paper);
      border: 1px solid var(--brass);
      border-radius: 4px;
      padding: 1px 8px;
      font-size: 12.5px;
    }
    .mono,
    span {
      color: var(--brass);
    }
    .veil {
      position: absolute;
      inset: 0;
      background: var(--ink);
      animation: veil linear both;
    }
    .shakes {
      animation: shake 0.4s linear;
    }
    @keyframes veil {
      50% {
        opacity: 0.75;
      }
      0%,
      100% {
        opacity: 0;
      }
    }
    @keyframes shake {
      20%,
      60% {
        transform: translateX(-4px);
      }
      40%,
      80% {
        transform: translateX(4px);
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Flourishes {
  readonly now = input.required<readonly Announcement[]>();
  protected readonly shake = computed(() => Math.max(0, ...this.now().map((item) => Number(item.data['shake'] ?? 0))));
  protected readonly fade = computed(() => Math.max(0, ...this.now().map((item) => Number(item.data['fade'] ?? 0))));
}

export const flourishesPanel: SeatPanel = { place: 'over', type: Flourishes, inputs: (seat) => ({ now: seat.flourishes() }) };
