import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, input, output, signal } from '@angular/core';
import type { Pin } from '@eager-ember/core';
import { LEFT_OF_PLOT, RIGHT_OF_PLOT } from './evidence-chart';

/** A pin as it is drawn: its place along the axis in percent, and which row its words stand in. */
interface Placed extends Pin {
  readonly index: number;
  readonly share: number;
  readonly row: number;
  readonly flipped: boolean;
}

const WIDTH_OF_LETTER = 6.5;
const ROW_HEIGHT = 17;
const STEP = 0.5;
const FINE_STEP = 0.1;

/** What is done from outside, and when: pins above the chart that can be dragged along it, by hand or with the arrow keys. */
@Component({
  selector: 'ee-pins',
  template: `
    <div class="rows" [style.height.px]="height()">
      @for (pin of placed(); track pin.index) {
        <button
          type="button"
          class="pin"
          role="slider"
          [class.flipped]="pin.flipped"
          [class.chosen]="pin.index === chosen()"
          [style.left.%]="pin.share"
          [style.top.px]="pin.row * rowHeight"
          [style.--below.px]="height() - pin.row * rowHeight - 8"
          [attr.aria-label]="pin.label"
          aria-valuemin="0"
          [attr.aria-valuemax]="seconds()"
          [attr.aria-valuenow]="pin.t"
          [attr.aria-valuetext]="pin.t + ' s' + (pin.lost ? ', ' + pin.lost : '')"
          [title]="'Drag, or use the arrows, to move it. Enter changes what it does, Delete takes it out.'"
          (pointerdown)="grab($event, pin)"
          (pointermove)="drag($event)"
          (pointerup)="drop(pin)"
          (pointercancel)="held = undefined"
          (keydown)="key($event, pin)"
        >
          <span class="dot"></span><span class="words">{{ pin.label }} <span class="mono">{{ pin.t }} s</span>@if (pin.lost) {<b> {{ pin.lost }}</b>}</span>
        </button>
      }
    </div>
  `,
  styles: `
    :host {
      display: block;
    }
    .rows {
      position: relative;
      margin: 0 ${RIGHT_OF_PLOT}px 0 ${LEFT_OF_PLOT}px;
    }
    .pin {
      position: absolute;
      margin-left: -5px;
      height: ${ROW_HEIGHT}px;
      white-space: nowrap;
      color: var(--brass);
      font-size: 12px;
      cursor: ew-resize;
      touch-action: none;
      display: flex;
      align-items: center;
      gap: 4px;
    }
    .pin::before {
      content: '';
      position: absolute;
      left: 4px;
      top: 12px;
      height: var(--below);
      border-left: 1px dotted var(--brass);
      pointer-events: none;
    }
    .words {
      position: relative;
      z-index: 1;
      background: var(--paper);
      padding-right: 3px;
    }
    .flipped {
      transform: translateX(-100%);
      flex-direction: row-reverse;
      margin-left: 5px;
    }
    .flipped::before {
      left: auto;
      right: 4px;
    }
    .dot {
      width: 10px;
      height: 10px;
      border-radius: 50%;
      background: var(--brass);
      flex: none;
    }
    .chosen {
      font-weight: 700;
    }
    .pin:hover .dot,
    .chosen .dot {
      outline: 3px solid var(--brass-wash);
    }
    .mono {
      color: var(--soft);
      font-size: 10.5px;
    }
    b {
      color: var(--bad);
      font-weight: 600;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Pins {
  readonly pins = input.required<readonly Pin[]>();
  readonly seconds = input.required<number>();
  readonly chosen = input<number>();
  readonly moved = output<{ readonly index: number; readonly t: number }>();
  readonly opened = output<number>();
  readonly removed = output<number>();
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  protected readonly rowHeight = ROW_HEIGHT;
  /** What is being dragged, and to where so far. */
  private readonly dragged = signal<{ readonly index: number; readonly t: number } | undefined>(undefined);
  protected held: { readonly x: number; readonly t: number; readonly width: number; moved: boolean } | undefined;

  protected readonly placed = computed<readonly Placed[]>(() => {
    const seconds = this.seconds();
    const width = Math.max(200, (this.host.nativeElement.clientWidth || 560) - LEFT_OF_PLOT - RIGHT_OF_PLOT);
    const ends: number[] = [];
    const all = this.pins().map((pin, index) => ({ ...pin, index, t: this.dragged()?.index === index ? this.dragged()!.t : pin.t }));
    const rows = new Map<number, number>();
    for (const pin of [...all].sort((a, b) => a.t - b.t)) {
      const length = (pin.label.length + (pin.lost?.length ?? 0) + 7) * WIDTH_OF_LETTER + 22;
      const at = (pin.t / seconds) * width;
      const from = at + length > width ? at - length : at - 6;
      let row = ends.findIndex((end) => end < from);
      if (row < 0) row = ends.length;
      ends[row] = from + length;
      rows.set(pin.index, row);
    }
    return all.map((pin) => {
      const length = (pin.label.length + (pin.lost?.length ?? 0) + 7) * WIDTH_OF_LETTER + 22;
      const share = Math.min(100, (100 * pin.t) / seconds);
      return { ...pin, share, row: rows.get(pin.index)!, flipped: (pin.t / seconds) * width + length > width };
    });
  });
  protected readonly height = computed(() => (Math.max(-1, ...this.placed().map((pin) => pin.row)) + 1) * ROW_HEIGHT + 2);

  protected grab(event: PointerEvent, pin: Placed): void {
    if (event.button !== 0) return;
    (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
    const width = this.host.nativeElement.clientWidth - LEFT_OF_PLOT - RIGHT_OF_PLOT;
    this.held = { x: event.clientX, t: pin.t, width, moved: false };
    this.dragged.set({ index: pin.index, t: pin.t });
  }

  protected drag(event: PointerEvent): void {
    const { held } = this;
    const dragged = this.dragged();
    if (!held || !dragged) return;
    if (Math.abs(event.clientX - held.x) > 3) held.moved = true;
    if (held.moved)
      this.dragged.set({ index: dragged.index, t: this.within(held.t + ((event.clientX - held.x) / held.width) * this.seconds()) });
  }

  protected drop(pin: Placed): void {
    const { held } = this;
    const dragged = this.dragged();
    this.held = undefined;
    this.dragged.set(undefined);
    if (!held || !dragged) return;
    if (held.moved) this.moved.emit({ index: pin.index, t: dragged.t });
    else this.opened.emit(pin.index);
  }

  protected key(event: KeyboardEvent, pin: Placed): void {
    const direction = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (direction !== undefined)
      this.moved.emit({ index: pin.index, t: this.within(pin.t + direction * (event.shiftKey ? FINE_STEP : STEP)) });
    else if (event.key === 'Enter' || event.key === ' ') this.opened.emit(pin.index);
    else if (event.key === 'Delete' || event.key === 'Backspace') this.removed.emit(pin.index);
    else return;
    event.preventDefault();
  }

  /** Tenths of a second, from the first to the end. */
  private within(t: number): number {
    return Math.min(this.seconds(), Math.max(FINE_STEP, Math.round(t * 10) / 10));
  }
}
