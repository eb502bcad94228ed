import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  effect,
  type ElementRef,
  inject,
  input,
  type OnDestroy,
  output,
  viewChild,
} from '@angular/core';
import type { Evidence, Span } from '@eager-ember/core';
import type { Chart } from 'chart.js';
import { Theme } from '../../shared/theme';

const DASHES: readonly number[][] = [[], [7, 3], [2, 3], [9, 3, 2, 3]];
/** Width of the axis. */
export const LEFT_OF_PLOT = 44;
/** Room behind the plot, where lines are named. */
export const RIGHT_OF_PLOT = 56;

/** The course of one or more values: the present one in ember, the one before as a pale ghost. */
@Component({
  selector: 'ee-evidence-chart',
  template: `
    <div
      class="plot"
      [class.low]="low()"
      tabindex="0"
      role="slider"
      aria-label="Cursor"
      aria-valuemin="0"
      [attr.aria-valuemax]="now().seconds"
      [attr.aria-valuenow]="cursor() ?? 0"
      [attr.aria-valuetext]="cursor() === undefined ? 'nowhere' : cursor() + ' s'"
      (pointermove)="point($event)"
      (pointerleave)="put(undefined)"
      (keydown)="key($event)"
    >
      <canvas #canvas role="img" [attr.aria-label]="words()"></canvas>
      @if (cursor() !== undefined) {
        <span class="cursor" [style.left]="'calc(${LEFT_OF_PLOT}px + (100% - ${LEFT_OF_PLOT + RIGHT_OF_PLOT}px) * ' + cursor()! / now().seconds + ')'"></span>
      }
    </div>
  `,
  styles: `
    .plot {
      position: relative;
      height: 186px;
    }
    .plot.low {
      height: 124px;
    }
    .cursor {
      position: absolute;
      top: 0;
      bottom: 26px;
      border-left: 1px solid var(--soft);
      pointer-events: none;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EvidenceChart implements OnDestroy {
  readonly now = input.required<Evidence>();
  readonly before = input<Evidence>();
  /** Stretches of time to be shaded. */
  readonly regions = input<readonly Span[]>([]);
  /** The page says what its one line is. */
  readonly alone = input(false);
  /** There is more beside it to be seen. */
  readonly low = input(false);
  /** Seconds at which the values are read. */
  readonly cursor = input<number>();
  readonly pointed = output<number | undefined>();
  private readonly theme = inject(Theme);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private chart: Chart | undefined;
  /** Where the cursor was last put: keys may come faster than pictures. */
  private latest: number | undefined;

  constructor() {
    afterNextRender(() => void this.start());
    effect(() => (this.latest = this.cursor()));
    effect(() => {
      const [now, before] = [this.now(), this.before()];
      this.theme.dark();
      // Colours are read from the page after the theme's attribute has changed.
      queueMicrotask(() => this.draw(now, before));
    });
  }

  protected words(): string {
    const [series] = this.now().series;
    if (!series) return 'No values';
    return `${series.label}: from ${series.values[0].toFixed(1)} at the start to ${series.values.at(-1)!.toFixed(1)} after ${this.now().seconds} seconds, between ${Math.min(...series.values).toFixed(1)} and ${Math.max(...series.values).toFixed(1)}`;
  }

  private async start(): Promise<void> {
    const { Chart: Library, LineController, LineElement, PointElement, LinearScale } = await import('chart.js');
    Library.register(LineController, LineElement, PointElement, LinearScale);
    this.chart = new Library(this.canvas().nativeElement, {
      type: 'line',
      data: { datasets: [] },
      options: {
        animation: false,
        parsing: false,
        normalized: true,
        maintainAspectRatio: false,
        events: [],
        layout: { padding: { right: RIGHT_OF_PLOT, top: 8 } },
        elements: { point: { radius: 0 } },
        scales: {
          x: {
            type: 'linear',
            min: 0,
            ticks: { callback: (value) => (value === 0 ? '0 s' : `${value}`), maxTicksLimit: 8 },
            grid: { display: false },
          },
          y: { ticks: { maxTicksLimit: 6 }, afterFit: (axis) => (axis.width = LEFT_OF_PLOT) },
        },
      },
      plugins: [
        { id: 'regions', beforeDatasetsDraw: (chart) => this.shade(chart) },
        {
          id: 'labels',
          afterDatasetsDraw: (chart) => {
            this.pin(chart);
            this.name(chart);
          },
        },
      ],
    });
    this.draw(this.now(), this.before());
  }

  private draw(now: Evidence, before: Evidence | undefined): void {
    const { chart } = this;
    if (!chart) return;
    const style = getComputedStyle(document.documentElement);
    const colour = (name: string) => style.getPropertyValue(`--${name}`).trim();
    const line = (evidence: Evidence, i: number, ghost: boolean) => ({
      label: evidence.series[i].label,
      data: pointsOf(evidence, i),
      borderColor: colour(ghost ? 'ghost' : 'ember'),
      borderWidth: ghost ? 1.8 : 2.4,
      borderDash: ghost ? [5, 4] : DASHES[i % DASHES.length],
    });
    const ghosts = before?.series.map((_, i) => line(before, i, true)) ?? [];
    chart.data.datasets = [...now.series.map((_, i) => line(now, i, false)), ...ghosts];
    const all = [now, before].flatMap((e) => e?.series.flatMap((s) => s.values) ?? []);
    const [low, high] = [Math.min(0, ...all), Math.max(...all)];
    const { x, y } = chart.options.scales!;
    Object.assign(x!, { max: now.seconds });
    // Axes begin at zero, and end a little above what there is.
    Object.assign(y!, { min: low < 0 ? undefined : 0, suggestedMax: high === low ? low + 1 : high * 1.02 });
    const font = { family: "'JetBrains Mono Variable', monospace", size: 11 };
    for (const axis of [x!, y!]) {
      axis.ticks = { ...axis.ticks, color: colour('soft'), font } as never;
      axis.grid = { ...axis.grid, color: colour('hair') } as never;
      Object.assign(axis, { border: { color: colour('soft') } });
    }
    chart.update('none');
    // Tests wait for this rather than for a time.
    this.canvas().nativeElement.dataset['drawn'] = `${now.series.map((s) => s.values.at(-1)).join()}${before ? ' ghost' : ''}`;
  }

  private shade(chart: Chart): void {
    const { ctx, chartArea, scales } = chart;
    const style = getComputedStyle(document.documentElement);
    for (const { from, to, label } of this.regions()) {
      const [left, right] = [from, to].map((t) => scales['x'].getPixelForValue(t));
      ctx.fillStyle = style.getPropertyValue('--copy-wash');
      ctx.fillRect(left, chartArea.top, right - left, chartArea.bottom - chartArea.top);
      ctx.fillStyle = style.getPropertyValue('--copy');
      ctx.font = "12px 'Atkinson Hyperlegible Next Variable', sans-serif";
      ctx.fillText(label.toLowerCase(), left + 6, chartArea.top + 14);
    }
  }

  /** What was done to it from outside, and when. */
  private pin(chart: Chart): void {
    const { ctx, chartArea, scales } = chart;
    ctx.strokeStyle = getComputedStyle(document.documentElement).getPropertyValue('--brass');
    for (const { t } of this.now().pins) {
      const x = scales['x'].getPixelForValue(t);
      ctx.setLineDash([2, 3]);
      ctx.beginPath();
      ctx.moveTo(x, chartArea.top);
      ctx.lineTo(x, chartArea.bottom);
      ctx.stroke();
      ctx.setLineDash([]);
    }
  }

  /** Names lines at their ends, where they can be told apart: no key to look up. */
  private name(chart: Chart): void {
    const { ctx, chartArea } = chart;
    const count = this.now().series.length;
    ctx.font = "12px 'Atkinson Hyperlegible Next Variable', sans-serif";
    ctx.textAlign = 'left';
    const taken: number[] = [];
    chart.data.datasets.forEach((set, i) => {
      // An attribute's own page says what its one line is.
      const itself = count === 1 && this.alone();
      if (itself && !this.before()) return;
      const last = chart.getDatasetMeta(i).data.at(-1);
      if (!last) return;
      let y = last.y + 4;
      while (taken.some((t) => Math.abs(t - y) < 13)) y += 14;
      taken.push(y);
      const ghost = i >= count;
      // The ghost's own colour is too pale to be read as text.
      ctx.fillStyle = ghost ? getComputedStyle(document.documentElement).getPropertyValue('--soft') : String(set.borderColor);
      ctx.fillText(
        itself ? (ghost ? 'before' : 'now') : `${set.label}${ghost ? ' before' : ''}`,
        chartArea.right + 6,
        y,
        RIGHT_OF_PLOT - 6,
      );
    });
  }

  protected point(event: PointerEvent): void {
    const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
    const share = (event.clientX - box.left - LEFT_OF_PLOT) / (box.width - LEFT_OF_PLOT - RIGHT_OF_PLOT);
    this.put(share < 0 || share > 1 ? undefined : this.onTick(share * this.now().seconds));
  }

  /** Arrows move by half a second, with Shift by a tick; Escape puts the cursor away. */
  protected key(event: KeyboardEvent): void {
    const { seconds, perSecond } = this.now();
    const direction = { ArrowLeft: -1, ArrowRight: 1, Home: -Infinity, End: Infinity }[event.key];
    if (event.key === 'Escape') return this.put(undefined);
    if (direction === undefined) return;
    event.preventDefault();
    const step = event.shiftKey ? 1 / perSecond : 0.5;
    this.put(this.onTick(Math.min(seconds, Math.max(0, (this.latest ?? 0) + direction * step))));
  }

  protected put(t: number | undefined): void {
    this.latest = t;
    this.pointed.emit(t);
  }

  private onTick(t: number): number {
    const { perSecond } = this.now();
    return Math.round(t * perSecond) / perSecond;
  }

  /** The chart as a picture, on paper. */
  picture(): Promise<Blob | null> {
    const canvas = this.canvas().nativeElement;
    const copy = document.createElement('canvas');
    Object.assign(copy, { width: canvas.width, height: canvas.height });
    const ctx = copy.getContext('2d')!;
    ctx.fillStyle = getComputedStyle(document.documentElement).getPropertyValue('--paper');
    ctx.fillRect(0, 0, copy.width, copy.height);
    ctx.drawImage(canvas, 0, 0);
    return new Promise((done) => copy.toBlob(done, 'image/png'));
  }

  ngOnDestroy(): void {
    this.chart?.destroy();
  }
}

/** Points of a course, without those on a straight line between others: a minute at 20 ticks a second draws itself quickly. */
export function pointsOf(evidence: Evidence, index: number): { x: number; y: number }[] {
  const { values } = evidence.series[index];
  const points: { x: number; y: number }[] = [];
  for (let i = 0; i < values.length; i++) {
    const straight = i > 0 && i < values.length - 1 && Math.abs(values[i + 1] - 2 * values[i] + values[i - 1]) < 1e-9;
    if (!straight) points.push({ x: (i + 1) / evidence.perSecond, y: values[i] });
  }
  return points;
}
