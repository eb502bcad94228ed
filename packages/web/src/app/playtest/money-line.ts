import { ChangeDetectionStrategy, Component, input, output, type WritableSignal } from '@angular/core';
import type { EconomyView } from './economy';

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

/** Shows a seat's money as it is now. The statement of a day that is just over is opened where it tells
 * of anything, unless its player looks at something else. */
export function showStatement(
  shown: WritableSignal<EconomyView | undefined>,
  now: EconomyView | undefined,
  open: WritableSignal<string>,
): void {
  const before = shown();
  shown.set(now);
  const last = now?.last;
  const told = last !== undefined && last.income.length + last.costs.length > 0;
  if (before && told && last.day !== before.last?.day && open() === '') open.set(MONEY);
}
