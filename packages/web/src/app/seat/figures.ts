import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { Sign } from '../shared/sign';
import type { HudView } from './display';
import type { SeatPanel } from './panel';
import { hudOf } from './display';

/** What of a seat's own numbers is no bar: stats and counters. */
@Component({
  selector: 'ee-figures',
  imports: [Sign],
  template: `
    <dl>
      @for (figure of of(); track figure.id) {
        <div>
          <dt>@if (figure.icon) {<ee-sign [name]="figure.icon" />} {{ figure.label }}</dt>
          <dd class="mono" [attr.data-attribute]="figure.id">{{ figure.text }}</dd>
        </div>
      }
    </dl>
  `,
  styles: `
    :host {
      display: block;
    }
    dl {
      display: flex;
      flex-wrap: wrap;
      gap: 0 12px;
      margin: 0;
      font-size: 11.5px;
      line-height: 15px;
    }
    dl div {
      display: flex;
      gap: 6px;
    }
    dt {
      color: var(--soft);
    }
    dd {
      margin: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Figures {
  readonly of = input<HudView['figures']>([]);
}

export const figuresPanel: SeatPanel = { place: 'figures', type: Figures, inputs: (seat) => ({ of: seat.shown(hudOf)?.figures ?? [] }) };
