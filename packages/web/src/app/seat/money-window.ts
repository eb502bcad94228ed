import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Ask } from './controls';
import type { EconomyView } from './economy';
import { Statement } from './statement';
import { keyWindow, type SeatPanel } from './panel';
import { economyOf } from './economy';
import { MONEY } from './money-line';

/** A player's money: what is traded near by, what the day brought so far, and the last statement. */
@Component({
  selector: 'ee-money-window',
  imports: [Statement],
  template: `
    @if (view(); as now) {
      <section role="region" aria-label="Money">
        <p class="head">
          <b>Day {{ now.day }}</b> <span class="mono" data-purse>{{ now.purse }} {{ now.currency }}</span>
          @if (now.mayEnd) {
            <button type="button" class="act" [attr.aria-pressed]="now.ready" (click)="ask.emit({ do: 'endDay' })">{{ now.ready ? 'not yet' : 'end the day' }}</button>
          }
          <span class="soft">{{ now.ends }}</span>
          <button type="button" class="soft out" (click)="closed.emit()">close</button>
        </p>
        @if (now.short) {
          <p class="refusal" role="alert">{{ now.short }}</p>
        }
        @if (now.over) {
          <p class="over">{{ now.over }}</p>
        }
        <div class="both">
          <div>
            @for (market of now.markets; track market.id) {
              <h3>{{ market.label }}</h3>
              <ul>
                @for (good of market.goods; track good.id) {
                  <li [attr.data-good]="good.id">
                    <span class="name">{{ good.label }} <span class="soft">you have {{ good.have }}</span></span>
                    <span class="mono">{{ good.price }}</span>
                    <span class="soft move">{{ good.price > good.before ? '▲ from ' + good.before : good.price < good.before ? '▼ from ' + good.before : '' }}</span>
                    <button type="button" class="act" [attr.aria-label]="'Sell one ' + good.label.toLowerCase()" (click)="ask.emit({ do: 'sell', good: good.id, amount: 1 })">sell one</button>
                    <button type="button" class="act" [attr.aria-label]="'Sell all ' + good.label.toLowerCase()" (click)="ask.emit({ do: 'sell', good: good.id })">all</button>
                  </li>
                }
              </ul>
            }
            @for (shop of now.shops; track shop.id) {
              <h3>{{ shop.label }}</h3>
              <ul>
                @for (ware of shop.wares; track ware.id) {
                  <li [attr.data-offer]="ware.id">
                    <span class="name"
                      >{{ ware.label }} <span class="soft">{{ ware.held }}{{ ware.held && ware.left ? ', ' : '' }}{{ ware.left }}</span>
                    <span class="terms mono">{{ ware.costs }}{{ ware.gets ? ' → ' + ware.gets : '' }}{{ ware.upkeep ? ', ' + ware.upkeep : '' }}</span>
                      @if (ware.refusal) {
                        <span class="refused">{{ ware.refusal }}</span>
                      }
                    </span>
                    <button type="button" class="act" [attr.aria-label]="'Buy ' + ware.label.toLowerCase()" [class.dim]="ware.refusal !== ''" (click)="ask.emit({ do: 'buy', offer: ware.id })">buy</button>
                  </li>
                }
              </ul>
            }
            @if (now.markets.length + now.shops.length === 0) {
              <p class="soft">Nobody trades here: go to a market or a shop.</p>
            }
          </div>
          <div class="books">
          <ee-statement title="Today so far" [of]="now.today" />
          @if (now.last; as last) {
            <ee-statement [title]="'Statement of day ' + last.day" [of]="last" />
          }
          </div>
        </div>
      </section>
    }
  `,
  styleUrl: './seat-window.scss',
  styles: `
    section {
      inset: 0;
    }
    .name .soft {
      white-space: nowrap;
    }
    h3 {
      font: 700 12px var(--sans);
      margin: 6px 0 0;
    }
    li {
      padding: 2px 0;
    }
    button {
      font-size: 12px;
    }
    .move {
      font-size: 11.5px;
      white-space: nowrap;
    }
    .terms {
      display: block;
      font-size: 11.5px;
    }
    .refused {
      display: block;
      color: var(--bad);
      font-size: 11.5px;
    }
    .dim {
      color: var(--soft);
    }
    .over {
      font: italic 14px var(--serif);
    }
    .both {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(240px, 1fr));
      gap: 4px 26px;
    }
    .books {
      display: grid;
      gap: 10px;
      align-content: start;
    }
    .head > * {
      white-space: nowrap;
    }
    .head .soft {
      overflow: hidden;
      text-overflow: ellipsis;
    }
    .head .out {
      overflow: visible;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MoneyWindow {
  readonly view = input<EconomyView>();
  readonly ask = output<Ask>();
  readonly closed = output<void>();
}

/** Whether the statement of a day that is just over tells of anything: then it is opened. */
export function opensByItself(before: EconomyView | undefined, now: EconomyView | undefined): boolean {
  const last = now?.last;
  const told = last !== undefined && last.income.length + last.costs.length > 0;
  return before !== undefined && told && last.day !== before.last?.day;
}

export const moneyPanel: SeatPanel = {
  place: 'over',
  type: MoneyWindow,
  inputs: (seat) => ({ view: seat.shownIn(MONEY, economyOf) }),
  window: keyWindow({ key: 'm', name: MONEY, shows: economyOf, opensByItself }),
};
