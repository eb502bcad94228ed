import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import type { Sweep, SweepPoint, AbilityQuestions } from '@eager-ember/core';
import type { RulesetJson } from '../../shared/api';
import { CoreClient } from '../../shared/core-client';
import { Editor } from '../../store/editor';

interface Line {
  readonly name: string;
  readonly unit: string;
  readonly of: (point: SweepPoint) => number;
}

const LINES: readonly Line[] = [
  { name: 'cast', unit: 's', of: (point) => point.cast },
  { name: 'uses', unit: 'a minute', of: (point) => point.uses },
  { name: 'damage', unit: 'a minute', of: (point) => point.damage },
];
const [WIDE, HIGH] = [150, 64];

/** How an ability moves as the stat does that hastens it: three small courses, the present value marked. */
@Component({
  selector: 'ee-ability-sweep',
  template: `
    @if (sweep(); as now) {
      <h2>As {{ now.label.toLowerCase() }} goes from {{ now.points[0].at }} to {{ now.points[now.points.length - 1].at }}</h2>
      <div class="courses">
        @for (course of courses(); track course.name) {
          <figure>
            <figcaption>{{ course.name }} <span class="soft">{{ course.unit }}</span></figcaption>
            <svg viewBox="-4 -6 ${WIDE + 8} ${HIGH + 12}" role="img" [attr.aria-label]="course.words">
              <line x1="0" y1="${HIGH}" x2="${WIDE}" y2="${HIGH}" class="axis" />
              @if (course.ghost) {
                <polyline [attr.points]="course.ghost" class="ghost" />
              }
              <polyline [attr.points]="course.points" class="line" />
              @for (dot of course.dots; track dot.at) {
                <circle [attr.cx]="dot.x" [attr.cy]="dot.y" r="3" class="dot"><title>{{ now.label.toLowerCase() }} {{ dot.at }}: {{ dot.value }}</title></circle>
              }
            </svg>
            <p class="mono ends"><span>{{ course.first }}</span><span>{{ course.last }}</span></p>
          </figure>
        }
      </div>
    } @else if (busy()) {
      <p class="soft" role="status">Trying other values …</p>
    }
  `,
  styleUrl: '../evidence/plot.scss',
  styles: `
    h2 {
      font: 700 13.5px var(--sans);
      margin: 14px 0 2px;
    }
    .courses {
      display: flex;
      gap: 18px;
      margin: 4px 0 12px;
    }
    figure {
      flex: 1;
      margin: 0;
      min-width: 0;
    }
    figcaption {
      font-size: 12.5px;
    }
    .axis {
      stroke: var(--hair);
      stroke-width: 1;
    }
    .ghost {
      stroke-dasharray: 5 4;
    }
    .ends {
      display: flex;
      justify-content: space-between;
      font-size: 11.5px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AbilitySweep {
  readonly id = input.required<string>();
  private readonly client = inject(CoreClient);
  private readonly document = inject(Editor).document;
  protected readonly sweep = signal<Sweep | undefined>(undefined);
  private readonly before = signal<Sweep | undefined>(undefined);
  protected readonly busy = signal(false);
  private turn = 0;
  private of = '';

  protected readonly courses = computed(() => {
    const [now, before] = [this.sweep(), this.before()];
    if (!now) return [];
    return LINES.filter(({ of }) => now.points.some((point) => of(point) > 0)).map(({ name, unit, of }) => {
      const most = Math.max(...now.points.map(of), ...(before?.points.map(of) ?? []));
      const place = (points: readonly SweepPoint[]) =>
        points.map((point, i) => ({
          at: point.at,
          value: of(point),
          x: (WIDE * i) / (points.length - 1),
          y: HIGH * (1 - of(point) / most),
        }));
      const line = (points: readonly SweepPoint[]) =>
        place(points)
          .map(({ x, y }) => `${x.toFixed(1)},${y.toFixed(1)}`)
          .join(' ');
      const values = now.points.map(of);
      return {
        name,
        unit,
        dots: place(now.points),
        points: line(now.points),
        ghost: before ? line(before.points) : '',
        first: round(values[0]),
        last: round(values[values.length - 1]),
        words: `${name} ${unit}: ${now.points.map((point) => `${round(of(point))} at ${point.at}`).join(', ')}`,
      };
    });
  });

  constructor() {
    effect(() => {
      const [document, id] = [this.document(), this.id()];
      if (document) untracked(() => void this.compute(document, id));
    });
  }

  private async compute(document: RulesetJson, id: string): Promise<void> {
    const turn = ++this.turn;
    if (this.of !== id) {
      this.of = id;
      this.sweep.set(undefined);
      this.before.set(undefined);
    }
    this.busy.set(true);
    const next = await this.client
      .of<AbilityQuestions>('abilities')
      .sweep(document, id)
      .catch(() => undefined);
    if (turn !== this.turn) return;
    const last = this.sweep();
    if (last && next && last.stat === next.stat && JSON.stringify(last) !== JSON.stringify(next)) this.before.set(last);
    else if (last?.stat !== next?.stat) this.before.set(undefined);
    this.sweep.set(next);
    this.busy.set(false);
  }
}

const round = (value: number) => String(Math.round(value * 100) / 100);
