import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Evidence, Span } from '@eager-ember/core';
import { LEFT_OF_PLOT, RIGHT_OF_PLOT } from '../evidence/evidence-chart';

const NAMES: Readonly<Partial<Record<Span['kind'], string>>> = {
  cast: 'cast',
  channel: 'channel',
  recovery: 'recovery',
  cooldown: 'cooldown',
};

/** The parts of an ability's uses on a time line: what its user is doing above, what it waits for below. */
@Component({
  selector: 'ee-ability-strip',
  template: `
    <div class="strip" role="img" [attr.aria-label]="words()">
      @for (lane of lanes(); track lane.name) {
        <div class="lane" [class.ghost]="lane.ghost">
          <span class="name">{{ lane.name }}</span>
          @for (span of lane.spans; track $index) {
            <span class="bar {{ span.kind }}" [class.broken]="span.ended" [title]="barWords(span)" [style.left.%]="(100 * span.from) / now().seconds" [style.width.%]="(100 * (span.to - span.from)) / now().seconds">{{ fits(span) ? NAMES[span.kind] : '' }}</span>
          }
        </div>
      }
      @if (now().series.length === 0) {
        <div class="axis">
          @for (tick of ticks(); track tick) {
            <span class="mono" [style.left.%]="(100 * tick) / now().seconds">{{ tick === 0 ? '0 s' : tick }}</span>
          }
        </div>
      }
    </div>
  `,
  styles: `
    .strip {
      margin: 8px ${RIGHT_OF_PLOT}px 6px ${LEFT_OF_PLOT}px;
    }
    .lane {
      position: relative;
      height: 24px;
      border-bottom: 1px solid var(--hair);
    }
    .lane.ghost {
      height: 12px;
      opacity: 0.6;
    }
    .name {
      position: absolute;
      right: calc(100% + 6px);
      top: 3px;
      font-size: 12px;
      color: var(--soft);
    }
    .ghost .name {
      top: -3px;
    }
    .bar {
      position: absolute;
      top: 3px;
      bottom: 3px;
      overflow: hidden;
      white-space: nowrap;
      padding: 0 5px;
      font-size: 11.5px;
      line-height: 18px;
      border-radius: 2px;
    }
    .ghost .bar {
      font-size: 0;
      padding: 0;
    }
    .cast {
      background: var(--ember);
      color: var(--paper);
    }
    .channel {
      background: repeating-linear-gradient(45deg, var(--ember) 0 6px, var(--brass) 6px 9px);
      color: var(--paper);
    }
    .recovery {
      background: var(--ember-wash);
      border: 1px solid var(--ember);
      color: var(--ink);
      line-height: 16px;
    }
    .cooldown {
      background: repeating-linear-gradient(90deg, var(--hair) 0 3px, transparent 3px 6px);
      color: var(--ink);
    }
    .broken {
      border-right: 3px solid var(--bad);
    }
    .axis {
      position: relative;
      height: 18px;
      color: var(--soft);
      font-size: 11px;
    }
    .axis span {
      position: absolute;
      transform: translateX(-2px);
      padding-top: 3px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AbilityStrip {
  readonly now = input.required<Evidence>();
  readonly before = input<Evidence>();
  protected readonly NAMES = NAMES;

  protected readonly lanes = computed(() => {
    const of = (evidence: Evidence | undefined, kinds: readonly Span['kind'][]) =>
      (evidence?.spans ?? []).filter((span) => kinds.includes(span.kind));
    const { seconds } = this.now();
    const lane = (name: string, kinds: readonly Span['kind'][]) => {
      const now = of(this.now(), kinds);
      const before = of(this.before(), kinds)
        .filter((span) => span.from < seconds)
        .map((span) => ({ ...span, to: Math.min(seconds, span.to) }));
      const changed = before.length > 0 && JSON.stringify(before) !== JSON.stringify(now);
      return [
        ...(now.length > 0 ? [{ name, spans: now, ghost: false }] : []),
        ...(changed ? [{ name: 'was', spans: before, ghost: true }] : []),
      ];
    };
    return [...lane('does', ['cast', 'channel', 'recovery']), ...lane('waits', ['cooldown'])].map((l, i) => ({
      ...l,
      name: l.ghost ? `was${' '.repeat(i)}` : l.name,
    }));
  });

  protected readonly ticks = computed(() => {
    const { seconds } = this.now();
    const step = seconds <= 10 ? 2 : seconds <= 30 ? 5 : 10;
    return Array.from({ length: Math.floor(seconds / step) + 1 }, (_, i) => i * step);
  });

  protected fits(span: Span): boolean {
    return ((span.to - span.from) / this.now().seconds) * 62 > NAMES[span.kind]!.length;
  }

  protected barWords(span: Span): string {
    const round = (t: number) => Math.round(t * 100) / 100;
    return `${NAMES[span.kind]}, ${round(span.from)} s to ${round(span.to)} s${span.ended ? `, ${span.ended}` : ''}`;
  }

  protected words(): string {
    const spans = this.now()
      .spans.slice(0, 12)
      .map((span) => this.barWords(span));
    return spans.length === 0 ? 'It takes no time' : `Time line: ${spans.join('; ')}`;
  }
}
