import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Ask } from './controls';
import type { SurroundingsView } from './surroundings';
import type { SeatPanel } from './panel';
import { surroundingsOf } from './surroundings';

/** What the world around a seat offers, says and shows it: prompts, a visit under way, an open container, a dialogue. */
@Component({
  selector: 'ee-around',
  template: `
    @if (view(); as now) {
      @if (now.talk; as talk) {
        <div class="talk" role="status" aria-label="Dialogue">
          <p><b>{{ talk.speaker }}</b> “{{ talk.text }}” <span class="mono soft">{{ talk.left }}</span></p>
          @for (choice of talk.choices; track choice.number) {
            <button type="button" class="answer" (click)="ask.emit({ do: 'choose', choice: choice.number })"><kbd>{{ $index + 7 }}</kbd> {{ choice.text }}</button>
          }
        </div>
      }
      @if (now.box; as box) {
        <div class="box" role="region" [attr.aria-label]="'Contents of ' + box.name">
          <p class="head">
            <b>{{ box.name }}</b> <span class="soft" data-lid>{{ box.lid }}@if (box.left) {, <span class="mono">{{ box.left }}</span>}</span>
            <button type="button" class="soft out" (click)="ask.emit({ do: 'leave' })" aria-label="Close"><kbd>Q</kbd> close</button>
          </p>
          @if (box.lid === 'open') {
            <ul>
              @for (item of box.items; track item.item) {
                <li>
                  <span>{{ item.label }} <span class="mono">{{ item.amount }}</span></span>
                  @if (box.takes !== 'all') {
                    <button type="button" class="act" (click)="ask.emit({ do: 'take', item: item.item })">take</button>
                  }
                </li>
              } @empty {
                <li class="soft">It is empty.</li>
              }
            </ul>
            @if (box.takes !== 'one' && box.items.length > 0) {
              <button type="button" class="act all" (click)="ask.emit({ do: 'take' })"><kbd>T</kbd> take all</button>
            }
          }
        </div>
      }
      @if (now.visit; as visit) {
        <p class="visit" role="status"><b>{{ visit.with }}</b> {{ visit.label.toLowerCase() }}@if (visit.left) {, <span class="mono">{{ visit.left }}</span>} <button type="button" class="soft" (click)="ask.emit({ do: 'leave' })"><kbd>Q</kbd> leave</button></p>
      } @else if (!now.box && !now.talk) {
        <p class="offers">
          @for (offer of now.offers.slice(0, 3); track offer.key) {
            <button type="button" [class.busy]="offer.busy" (click)="ask.emit({ do: 'interact', with: offer.with, what: offer.what })">
              @if ($index < 2) {<kbd>{{ $index === 0 ? 'E' : 'F' }}</kbd>}{{ ' ' + offer.prompt }}@if (offer.price) {<span class="price">, <span class="mono">{{ offer.price }}</span></span>}{{ ' ' }}<span class="soft">{{ offer.whom }}@if (offer.busy) {, <i class="mono">{{ offer.busy }}</i>}</span>
            </button>
          }
        </p>
      }
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 5px;
      justify-items: start;
      font-size: 12.5px;
      margin-top: 5px;
    }
    .mono {
      white-space: nowrap;
    }
    .offers {
      display: grid;
      gap: 4px;
      justify-items: start;
    }
    .offers button,
    .visit,
    .talk,
    .box {
      background: var(--paper);
      border: 1px solid var(--copy);
      border-radius: 5px;
      padding: 2px 9px;
      color: var(--ink);
      text-align: left;
      font-weight: 400;
    }
    .offers button:hover {
      border-color: var(--ember);
    }
    .offers .busy {
      border-style: dashed;
    }
    .box {
      min-width: 210px;
      padding: 5px 9px 7px;
    }
    .head {
      display: flex;
      gap: 8px;
      align-items: baseline;
    }
    .out {
      margin-left: auto;
    }
    .box li {
      display: flex;
      justify-content: space-between;
      gap: 14px;
      padding: 1px 0;
      border-bottom: 1px solid var(--hair);
    }
    .all {
      margin-top: 4px;
    }
    .talk {
      max-width: 420px;
      padding: 5px 10px;
    }
    .talk p {
      font: 14px/1.4 var(--serif);
    }
    .answer {
      display: block;
      color: var(--ember);
      padding: 1px 0;
      text-align: left;
    }
    .price {
      color: var(--brass);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Around {
  readonly view = input<SurroundingsView>();
  /** What its seat is to be asked for. */
  readonly ask = output<Ask>();
}

/** What a key asks of the world around a seat's actor. */
export function askedAround(key: string, around: SurroundingsView | undefined): Ask | undefined {
  if (key === 'e') return { do: 'interact' };
  const [, second] = around?.offers ?? [];
  if (key === 'f' && second) return { do: 'interact', with: second.with, ...(second.what !== undefined && { what: second.what }) };
  if (key === 't' && around?.box) return { do: 'take' };
  if (key === 'q' && (around?.box ?? around?.visit)) return { do: 'leave' };
  const choice = /^[7-9]$/.test(key) ? around?.talk?.choices[Number(key) - 7] : undefined;
  return choice && { do: 'choose', choice: choice.number };
}

export const aroundPanel: SeatPanel = {
  place: 'arena',
  type: Around,
  inputs: (seat) => ({ view: seat.shown(surroundingsOf) }),
  asks: (key, seat) => askedAround(key, seat.shown(surroundingsOf)),
  covers(seat) {
    const around = seat.shown(surroundingsOf);
    return around?.box !== undefined || around?.talk !== undefined;
  },
};
