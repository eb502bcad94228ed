import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { documentFeature } from '../../store/document.reducer';
import { wayTo } from '../places';

/** One end of a wire. */
export interface End {
  readonly label: string;
  /** What it does, or waits for. */
  readonly words: string;
  readonly place?: { readonly chapter: string; readonly id: string; readonly path: string };
  /** The event that it leads to, where it leads to one on this page. */
  readonly event?: string;
  /** What is missing: the wire hangs loose. */
  readonly missing?: string;
}

/** The height of one end, in pixels: the lines are drawn by it. */
const STEP = 52;

/** Wires from those who bring something about, through it, to those who hear of it. Loose ends are red and say what is missing. */
@Component({
  selector: 'ee-wires',
  imports: [RouterLink],
  template: `
    <ol class="ends" [attr.aria-label]="leftName()">
      @for (end of left(); track $index) {
        <li [class.loose]="end.missing" [style.height.px]="step">
          @if (end.place; as place) {
            <a class="act" [routerLink]="way(place).commands" [queryParams]="way(place).query">{{ end.label }}</a>
          } @else {
            <b>{{ end.label }}</b>
          }
          <span class="words" [title]="end.missing ?? end.words">{{ end.missing ?? end.words }}</span>
        </li>
      } @empty {
        <li class="loose" [style.height.px]="step"><b>nothing</b><span class="words">{{ leftEmpty() }}</span></li>
      }
    </ol>
    <svg [attr.height]="height()" width="90" [attr.viewBox]="'0 0 90 ' + height()" aria-hidden="true">
      @for (line of lines().left; track $index) {
        <path [attr.d]="line.path" [class.loose]="line.loose" />
      }
    </svg>
    <div class="middle" [style.margin-top.px]="middle() - 60"><ng-content /></div>
    <svg [attr.height]="height()" width="90" [attr.viewBox]="'0 0 90 ' + height()" aria-hidden="true">
      @for (line of lines().right; track $index) {
        <path [attr.d]="line.path" [class.loose]="line.loose" />
      }
    </svg>
    <ol class="ends right" [attr.aria-label]="rightName()">
      @for (end of right(); track $index) {
        <li [class.loose]="end.missing" [style.height.px]="step">
          @if (end.event !== undefined) {
            <button type="button" class="act" (click)="opened.emit(end.event)">{{ end.label }}</button>
          } @else if (end.place; as place) {
            <a class="act" [routerLink]="way(place).commands" [queryParams]="way(place).query">{{ end.label }}</a>
          } @else {
            <b>{{ end.label }}</b>
          }
          <span class="words" [title]="end.missing ?? end.words">{{ end.missing ?? end.words }}</span>
        </li>
      } @empty {
        <li [style.height.px]="step"><b class="soft">nobody</b><span class="words">{{ rightEmpty() }}</span></li>
      }
    </ol>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: minmax(160px, 1fr) 90px minmax(190px, 250px) 90px minmax(160px, 1fr);
      align-items: start;
    }
    .ends li {
      display: flex;
      flex-direction: column;
      justify-content: center;
      text-align: right;
      padding: 0 10px;
      font-size: 13.5px;
      overflow: hidden;
    }
    .ends a,
    .ends button,
    .ends b {
      align-self: flex-end;
      font-weight: 650;
      white-space: nowrap;
    }
    .right li,
    .right a,
    .right button {
      text-align: left;
    }
    .right a,
    .right button,
    .right b {
      align-self: flex-start;
    }
    .words {
      color: var(--soft);
      font-size: 12px;
      line-height: 1.25;
      display: -webkit-box;
      -webkit-line-clamp: 2;
      -webkit-box-orient: vertical;
      overflow: hidden;
    }
    .loose .words,
    .loose > b {
      color: var(--bad);
    }
    path {
      fill: none;
      stroke: var(--copy);
      stroke-width: 1.5;
    }
    path.loose {
      stroke: var(--bad);
      stroke-dasharray: 5 4;
    }
    .middle {
      border: 1.5px solid var(--ink);
      border-radius: 6px;
      background: var(--paper);
      padding: 12px 14px;
      min-height: 90px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Wires {
  readonly left = input.required<readonly End[]>();
  readonly right = input.required<readonly End[]>();
  readonly leftName = input.required<string>();
  readonly rightName = input.required<string>();
  readonly leftEmpty = input('');
  readonly rightEmpty = input('');
  /** The event whose wires are asked for. */
  readonly opened = output<string>();
  private readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
  protected readonly step = STEP;
  protected readonly height = computed(() => Math.max(150, Math.max(1, this.left().length, this.right().length) * STEP));
  protected readonly middle = computed(() => Math.min(this.height() / 2, 130));
  protected readonly lines = computed(() => {
    const line = (i: number, from: number, to: number, loose: boolean) => {
      const y = i * STEP + STEP / 2;
      return {
        path: `M ${from} ${y} C ${from + (to - from) / 2} ${y}, ${from + (to - from) / 2} ${this.middle()}, ${to} ${this.middle()}`,
        loose,
      };
    };
    return {
      left: (this.left().length > 0 ? this.left() : [{ missing: 'x' }]).map((end, i) => line(i, 0, 90, end.missing !== undefined)),
      right: this.right().map((end, i) => line(i, 90, 0, end.missing !== undefined)),
    };
  });

  protected way(place: { chapter: string; id: string; path: string }) {
    return wayTo(this.ruleset() ?? '', place);
  }
}
