import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import type { TrackEvidence, TrackQuestions } from '@eager-ember/core';
import type { RulesetJson } from '../../shared/api';
import { CoreClient } from '../../shared/core-client';
import { Editor } from '../../store/editor';

const [WIDE, HIGH] = [520, 170];
type Rows = TrackEvidence['rows'];

/** What a track comes to: its curve and table, how long the way to a level is at an income, and what one grant does. */
@Component({
  selector: 'ee-track-evidence',
  templateUrl: './track-evidence.html',
  styleUrls: ['../evidence/plot.scss', './track-evidence.scss'],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TrackEvidencePage {
  readonly id = input.required<string>();
  private readonly client = inject(CoreClient);
  private readonly document = inject(Editor).document;
  protected readonly now = signal<TrackEvidence | undefined>(undefined);
  protected readonly before = signal<TrackEvidence | undefined>(undefined);
  protected readonly failure = signal('');
  protected readonly grant = signal(5000);
  /** Experience a minute. */
  protected readonly income = signal(40);
  protected readonly target = signal(10);
  private turn = 0;
  private of = '';

  /** The curve of what it takes in all, and bars of what each level takes. */
  protected readonly chart = computed(() => {
    const [now, before] = [this.now(), this.before()];
    if (!now) return undefined;
    const most = Math.max(...[...now.rows, ...(before?.rows ?? [])].map(({ total }) => total), 1);
    const top = Math.max(...[now.rows.length, before?.rows.length ?? 0]);
    const x = (level: number) => (WIDE * (level - 1)) / Math.max(1, top - 1);
    const line = (rows: Rows) =>
      rows.map(({ level, total }) => `${x(level).toFixed(1)},${(HIGH * (1 - total / most)).toFixed(1)}`).join(' ');
    const wide = Math.max(2, WIDE / Math.max(1, top - 1) - 2);
    return {
      line: line(now.rows),
      ghost: before ? line(before.rows) : '',
      dots: now.rows.map(({ level, total }) => ({ level, total, x: x(level), y: HIGH * (1 - total / most) })),
      bars: now.rows.slice(0, -1).map(({ level, need }) => ({ level, need, x: x(level) + 1, wide: wide, high: (HIGH * need) / most })),
      ticks: [...new Set([1, Math.round(top / 4), Math.round(top / 2), Math.round((3 * top) / 4), top])]
        .filter((level) => level > 0)
        .map((level) => ({ level, x: x(level) })),
      most,
      words: now.rows.map(({ level, total }) => `level ${level}: ${round(total)}`).join(', '),
    };
  });

  /** How long the way to the asked level is. */
  protected readonly way = computed(() => {
    const rows = this.now()?.rows ?? [];
    const row = rows[Math.min(rows.length, Math.max(1, this.target())) - 1];
    if (!row || !(this.income() > 0)) return '';
    return `${timeWords(row.total / this.income())} to level ${row.level}: ${round(row.total)} in all.`;
  });

  constructor() {
    effect(() => {
      const [document, id, grant] = [this.document(), this.id(), this.grant()];
      if (document) untracked(() => void this.compute(document, id, grant));
    });
  }

  private async compute(document: RulesetJson, id: string, grant: number): Promise<void> {
    const turn = ++this.turn;
    if (this.of !== id) {
      this.of = id;
      this.now.set(undefined);
      this.before.set(undefined);
    }
    try {
      const next = await this.client.of<TrackQuestions>('tracks').levels(document, id, grant);
      if (turn !== this.turn) return;
      const last = this.now();
      if (last && next && JSON.stringify(last.rows) !== JSON.stringify(next.rows)) this.before.set(last);
      this.now.set(next);
      this.failure.set('');
    } catch (error) {
      if (turn === this.turn) this.failure.set(error instanceof Error ? error.message : String(error));
    }
  }

  protected readonly round = round;
  protected readonly whole = (value: number) => String(Math.round(value));

  protected type(field: HTMLInputElement, into: 'grant' | 'income' | 'target'): void {
    const value = Number(field.value);
    const fits = field.value.trim() !== '' && Number.isFinite(value) && value >= 0 && value <= 1e9;
    if (fits) this[into].set(into === 'target' ? Math.round(value) : value);
    field.value = String(this[into]());
  }
}

const round = (value: number) => String(Math.round(value * 10) / 10);

/** Minutes in words: `3 h 20 min`. */
function timeWords(minutes: number): string {
  if (minutes < 1) return `${Math.ceil(minutes * 60)} s`;
  const hours = Math.floor(minutes / 60);
  return hours === 0 ? `${Math.round(minutes)} min` : `${hours} h ${Math.round(minutes % 60)} min`;
}
