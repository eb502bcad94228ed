import { ChangeDetectionStrategy, Component, computed, effect, inject, type OnDestroy, signal, untracked } from '@angular/core';
import { type LootEvidence, percent, type Read, type SampleResult, SHARE_WORDS } from '@eager-ember/core';
import { BackgroundTasks } from '../../shared/background-tasks';
import { Editor } from '../../store/editor';
import { SpecContext } from '../spec/spec-context';
import { LootBoard } from './loot-board';

const [WIDE, HIGH] = [520, 160];
const OPENINGS = 1_000_000;
/** Openings in one go: few enough to be stopped between. */
const OPENINGS_A_GO = 25_000;
/** Counted and sampled agree within so many standard errors. */
const AGREES = 4;
type Until = NonNullable<LootEvidence['until']>;

/** The real odds of a loot table: how long one waits for something, what an opening gives, and a sample that has to agree. */
@Component({
  selector: 'ee-loot-odds',
  templateUrl: './loot-odds.html',
  styleUrls: ['../evidence/plot.scss', './loot-odds.scss'],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LootOdds implements OnDestroy {
  protected readonly board = inject(LootBoard);
  private readonly tasks = inject(BackgroundTasks);
  private readonly context = inject(SpecContext);
  private readonly document = inject(Editor).document;
  protected readonly percent = percent;
  protected readonly result = signal<SampleResult | undefined>(undefined);
  protected readonly working = signal(false);
  protected readonly progress = signal(0);
  private turn = 0;

  constructor() {
    // What was sampled was of other odds.
    effect(() => {
      this.board.now();
      untracked(() => {
        this.stop();
        this.result.set(undefined);
      });
    });
  }

  ngOnDestroy(): void {
    this.stop();
  }

  /** The openings by which so many have it: counted out where that can be, sampled otherwise. */
  private readonly at = computed((): readonly (number | undefined)[] => {
    const odds = this.board.now();
    return odds?.exact === false ? (this.result()?.until ?? []) : (odds?.until?.at ?? []);
  });

  protected readonly answer = computed(() => {
    const odds = this.board.now();
    if (!odds?.until) return '';
    if (!odds.exact && !this.result()) return 'A sample will tell.';
    return sentence(this.at(), odds.until);
  });

  protected readonly was = computed(() => {
    const [now, before] = [this.board.now(), this.board.before()];
    if (!before?.until || before.until.thing !== now?.until?.thing || JSON.stringify(before.until.at) === JSON.stringify(now.until.at))
      return '';
    return before.until.at.map((n) => (n === undefined ? 'never' : `${n}`)).join(', ');
  });

  protected readonly chart = computed(() => {
    const odds = this.board.now();
    const until = odds?.until;
    if (!until || !odds.exact || until.curve.length < 2) return undefined;
    // As far as the one without the streak breaker is worth looking at, so that the cut tail is seen.
    const own = until.curve.at(-1)!.opening;
    const most = Math.max(4, Math.min(until.plain?.curve.at(-1)?.opening ?? own, own * 2.2), own);
    const x = (opening: number) => (WIDE * Math.min(opening, most)) / most;
    const y = (share: number) => HIGH * (1 - share);
    const line = (curve: Until['curve']) =>
      [
        ...curve.filter(({ opening }) => opening <= most),
        ...(curve.at(-1)!.opening < most ? [{ opening: most, share: curve.at(-1)!.share }] : []),
      ]
        .map(({ opening, share }) => `${x(opening).toFixed(1)},${y(share).toFixed(1)}`)
        .join(' ');
    const before = this.board.before()?.until;
    const end = until.plain?.curve.filter(({ opening }) => opening <= most).at(-1);
    const half = until.at[0];
    return {
      line: line(until.curve),
      before: before && before.thing === until.thing ? line(before.curve) : '',
      // Each label beside its own line: below the one without, right of the rise of the other.
      plain: until.plain &&
        end && { points: line(until.plain.curve), x: x(most * 0.62), y: y(shareAt(until.plain.curve, most * 0.62)) + 16 },
      label: { x: x(until.at[1] ?? most / 2) + 14, y: y(0.96) + 6 },
      half: half !== undefined && half <= most ? { x: x(half), y: y(0.5) } : undefined,
      shares: [0, 0.5, 1].map((share) => ({ share, y: y(share), label: `${share * 100} %` })),
      openings: steps(most).map((opening) => ({ opening, x: x(opening) })),
      dots: (this.result()?.shares ?? [])
        .filter(({ opening }) => opening <= most)
        .map(({ opening, mean, error }) => ({
          x: x(opening),
          y: y(mean),
          low: y(Math.max(0, mean - 2 * error)),
          high: y(Math.min(1, mean + 2 * error)),
          words: `sampled: ${percent(mean)} by opening ${opening}, ± ${percent(2 * error)}`,
        })),
      words: `${until.label}: ${sentence(until.at, until)}`,
    };
  });

  /** What the sample says, and whether it agrees with what was counted out. */
  protected readonly sampled = computed(() => {
    const [odds, seen] = [this.board.now(), this.result()];
    if (!odds || !seen) return undefined;
    const many = seen.openings >= OPENINGS ? 'A sampled million' : `${seen.openings.toLocaleString('en')} sampled openings`;
    if (!odds.exact) return { words: `${many}, ${seen.waits.toLocaleString('en')} waits.` };
    const gaps = [
      ...(odds.until?.compared ?? []).map(({ share }, i) => ({ counted: share, seen: seen.shares[i] })),
      ...odds.lines.map(({ chance }, i) => ({ counted: chance, seen: seen.chances[i] })),
    ].filter(({ seen: one }) => one !== undefined);
    const worst = gaps.reduce((a, b) => (Math.abs(b.counted - b.seen.mean) > Math.abs(a.counted - a.seen.mean) ? b : a), gaps[0]);
    const agrees = gaps.every(({ counted, seen: { mean, error } }) => Math.abs(counted - mean) <= AGREES * error + 1e-9);
    const difference = worst
      ? `largest difference ${points(Math.abs(worst.counted - worst.seen.mean))} (± ${points(2 * worst.seen.error)})`
      : '';
    return { words: `${many} ${agrees ? 'agrees' : 'does not agree'}: ${difference}.` };
  });

  protected readonly bars = computed(() => {
    const odds = this.board.now();
    const most = Math.max(...(odds?.expected ?? []).map(({ mean }) => mean), 1e-9);
    return (odds?.expected ?? []).map(({ thing, label, mean, plain }) => {
      const seen = this.result()?.expected.find((one) => one.thing === thing);
      return {
        thing,
        label: label.toLowerCase(),
        share: (48 * mean) / most,
        mean: figure(mean),
        plain: Math.abs(mean - plain) > 0.05 * mean ? figure(plain) : '',
        seen: seen ? `sampled ${figure(seen.mean)} ± ${(2 * seen.error).toFixed(4)}` : '',
      };
    });
  });

  protected ask(thing: string): void {
    this.board.thing.set(thing);
  }

  protected read_(field: HTMLInputElement, { of, id, value }: Read): void {
    const typed = Number(field.value);
    if (field.value.trim() !== '' && Number.isFinite(typed) && Math.abs(typed) <= 1e9) this.board.read(of, id, typed);
    else field.value = String(value);
  }

  protected stop(): void {
    this.turn++;
    this.working.set(false);
  }

  protected async start(): Promise<void> {
    const odds = this.board.now();
    const document = this.document();
    if (!odds?.until || !document) return;
    const turn = ++this.turn;
    this.working.set(true);
    this.progress.set(0);
    const asked = odds.until.compared.map(({ opening }) => opening);
    try {
      const task = { document, concept: 'loot', name: 'openings', args: [this.context.id(), this.board.roller(), odds.until.thing] };
      await this.tasks.inTurn<SampleResult>(task, OPENINGS / OPENINGS_A_GO, [OPENINGS_A_GO, asked], {
        stopped: () => turn !== this.turn,
        told: (done, result) => {
          this.progress.set((done * OPENINGS_A_GO) / OPENINGS);
          this.result.set(result);
        },
      });
    } catch (error) {
      if (turn === this.turn) this.board.failure.set(error instanceof Error ? error.message : String(error));
    }
    if (turn === this.turn) this.working.set(false);
  }
}

/** The share that a curve has come to by an opening. */
const shareAt = (curve: Until['curve'], opening: number): number => curve.findLast((point) => point.opening <= opening)?.share ?? 0;

const figure = (value: number) => String(Number(value.toFixed(value < 0.1 ? 4 : 2)));
const points = (share: number) => `${(100 * share).toFixed(2)} points`;

/** When half of players have it, and most: in one sentence. */
function sentence(at: readonly (number | undefined)[], { label, curve }: Until): string {
  const end = curve.at(-1);
  if (at[0] === undefined)
    return end && end.share > 0
      ? `Only ${percent(end.share)} of players have one after ${end.opening} openings.`
      : `Nobody can wait for ${label.toLowerCase()}: it never comes.`;
  const by = at.flatMap((n, i) =>
    n === undefined ? [] : [i === 0 ? `Half of players have one by the ${ordinal(n)}` : `${SHARE_WORDS[i]} by the ${ordinal(n)}`],
  );
  const open = by.length < at.length && end ? `, the rest later than the ${ordinal(end.opening)}` : '';
  return `${by.join(', ')}${open}.`;
}

function ordinal(n: number): string {
  const end = n % 100 >= 11 && n % 100 <= 13 ? 'th' : (['th', 'st', 'nd', 'rd'][n % 10] ?? 'th');
  return `${n}${end}`;
}

/** Round numbers along an axis: at most six of them. */
function steps(most: number): readonly number[] {
  const rough = most / 5;
  const size = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 5, 10].map((n) => n * size).find((one) => one >= rough)!;
  const whole = Math.max(1, Math.round(step));
  return Array.from({ length: Math.floor(most / whole) + 1 }, (_, i) => i * whole);
}
