import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { AchievementsView } from './achievements';
import type { SeatPanel } from './panel';
import { achievementsOf } from './achievements';
import { ACHIEVEMENTS } from './level-line';

/** A player's achievements: unlocked first, then those that are not, with how far they are. */
@Component({
  selector: 'ee-achievement-window',
  template: `
    @if (view(); as now) {
      <section role="region" aria-label="Achievements">
        <p class="head"><b>Achievements</b> <span class="mono" data-done>{{ now.done }}</span> of {{ now.all }} <button type="button" class="soft out" (click)="closed.emit()">close</button></p>
        <ul>
          @for (one of now.list; track one.key) {
            <li [class.done]="one.done" [attr.data-achievement]="one.key">
              <span aria-hidden="true">{{ one.done ? '◆' : '◇' }}</span>
              <span class="name"><span class="visually-hidden">{{ one.done ? 'unlocked: ' : 'locked: ' }}</span><b>{{ one.label }}</b>{{ ' ' }}<span class="soft">{{ one.text }}</span></span>
              <span class="mono">{{ one.need > 1 ? one.have + '/' + one.need : '' }}</span>
              <span class="mono soft">{{ one.points }}</span>
            </li>
          }
          @if (now.hidden > 0) {
            <li class="soft">{{ now.hidden === 1 ? 'One more is secret.' : now.hidden + ' more are secret.' }}</li>
          }
        </ul>
      </section>
    }
  `,
  styleUrl: './seat-window.scss',
  styles: `
    li:not(.done) b {
      font-weight: 400;
    }
    .done {
      color: var(--copy);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AchievementWindow {
  readonly view = input<AchievementsView>();
  readonly closed = output<void>();
}

export const achievementPanel: SeatPanel = {
  place: 'window',
  type: AchievementWindow,
  inputs: (seat) => ({ view: seat.shownIn(ACHIEVEMENTS, achievementsOf) }),
};
