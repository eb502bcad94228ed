import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { EconomyView } from './economy';
import type { SeatPanel } from './panel';
import { economyOf } from './economy';

/** What is open, where it is the window of money: no tree has an id with a sign. */
export const MONEY = '#money';

/** A seat's money on its display, and whether anybody trades near by. */
@Component({
  selector: 'ee-money-line',
  template: `
    @if (view(); as now) {
      <button type="button" class="act" data-money [attr.aria-expanded]="open() === MONEY" (click)="toggled.emit(MONEY)"><kbd>M</kbd> Money, day <span class="mono">{{ now.day }}</span></button>
      @if (now.short) {
        <span class="short">you are short</span>
      } @else if (now.markets.length + now.shops.length > 0) {
        <span class="soft">trade here</span>
      }
    }
  `,
  styles: `
    :host {
      display: flex;
      gap: 8px;
      align-items: baseline;
      font-size: 12.5px;
    }
    button {
      font-size: 12.5px;
    }
    .short {
      color: var(--bad);
      font-weight: 700;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MoneyLine {
  readonly view = input<EconomyView>();
  readonly open = input('');
  readonly toggled = output<string>();
  protected readonly MONEY = MONEY;
}

export const moneyDoorPanel: SeatPanel = {
  place: 'door',
  type: MoneyLine,
  inputs: (seat) => ({ view: seat.shown(economyOf), open: seat.open() }),
};
