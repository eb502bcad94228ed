import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { LevelsView } from './levels';
import type { AchievementsView } from './achievements';
import type { SeatPanel } from './panel';
import { levelsOf } from './levels';
import { achievementsOf } from './achievements';

/** What is open, where it is the window of achievements: no tree has an id with a sign. */
export const ACHIEVEMENTS = '#achievements';
/** At most so many are followed on the display. */
const MOST_FOLLOWED = 2;

/** An actor's levels, and its skill trees with the points that are free. */
@Component({
  selector: 'ee-level-line',
  template: `
    @if (view(); as now) {
      @for (track of now.levels; track track.id) {
        <p [attr.data-track]="track.id">
          <span>{{ track.label }} <b class="mono">{{ track.level }}</b></span>
          <span class="bar" role="meter" [attr.aria-label]="track.label" aria-valuemin="0" [attr.aria-valuemax]="track.need" [attr.aria-valuenow]="track.have"><i [style.width.%]="track.share * 100"></i></span>
          <span class="mono soft">{{ track.text }}</span>
        </p>
      }
      @for (one of following(); track one.key) {
        <p [attr.data-following]="one.key">
          <span>{{ one.label }}</span>
          <span class="bar" role="meter" [attr.aria-label]="one.label" aria-valuemin="0" [attr.aria-valuemax]="one.need" [attr.aria-valuenow]="one.have"><i [style.width.%]="(100 * one.have) / one.need"></i></span>
          <span class="mono soft">{{ one.have }}/{{ one.need }}</span>
        </p>
      }
      <div class="doors">
      @for (tree of now.trees; track tree.id) {
        <button type="button" class="act" [attr.data-tree]="tree.id" [attr.aria-expanded]="open() === tree.id" (click)="toggled.emit(tree.id)">{{ tree.label }}, <span class="mono">{{ tree.free }}</span> free</button>
      }
      @if (achievements(); as all) {
        <button type="button" class="act" data-achievements [attr.aria-expanded]="open() === ACHIEVEMENTS" (click)="toggled.emit(ACHIEVEMENTS)">Achievements, <span class="mono">{{ all.done }}</span> of {{ all.all }}</button>
      }
      </div>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 2px;
      justify-items: start;
    }
    p {
      display: grid;
      grid-template-columns: auto 1fr auto;
      gap: 10px;
      align-items: center;
      width: 100%;
      margin: 0;
      font-size: 12.5px;
    }
    .doors {
      display: flex;
      flex-wrap: wrap;
      gap: 0 16px;
    }
    :host(.compact) {
      display: flex;
      flex-wrap: wrap;
      gap: 0 10px;
    }
    :host(.compact) p,
    :host(.compact) button {
      width: auto;
      font-size: 11.5px;
    }
    :host(.compact) .bar,
    :host(.compact) p > .soft {
      display: none;
    }
    :host(.compact) .doors {
      gap: 0 10px;
    }
    .bar {
      height: 5px;
      border-radius: 3px;
      background: var(--hair);
      overflow: hidden;
    }
    .bar i {
      display: block;
      height: 100%;
      background: var(--copy);
    }
    button {
      font-size: 12.5px;
    }
  `,
  host: { '[class.compact]': 'compact()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LevelLine {
  readonly view = input<LevelsView>();
  readonly achievements = input<AchievementsView>();
  /** Little room: what is followed, and how far a level is, are left to the windows. */
  readonly compact = input(false);
  protected readonly ACHIEVEMENTS = ACHIEVEMENTS;
  protected readonly following = computed(() =>
    (this.compact() ? [] : (this.achievements()?.list ?? [])).filter(({ hud }) => hud).slice(0, MOST_FOLLOWED),
  );
  /** The tree whose window is open. */
  readonly open = input('');
  readonly toggled = output<string>();
}

export const levelPanel: SeatPanel = {
  place: 'standing',
  type: LevelLine,
  inputs: (seat, layout) => ({
    view: seat.shown(levelsOf),
    achievements: seat.shown(achievementsOf),
    compact: layout === 'quarter',
    open: seat.open(),
  }),
};
