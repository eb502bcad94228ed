import { ChangeDetectionStrategy, Component, computed, effect, inject, type OnDestroy, signal, untracked } from '@angular/core';
import {
  differenceOf,
  type EconomyFacts,
  type Estimate,
  MOST_DAYS,
  type Outcome,
  percent,
  type PlanId,
  PLANS,
  type EconomyQuestions,
  type Game,
  outcomeOf,
} from '@eager-ember/core';
import type { RulesetJson } from '../../shared/api';
import { CoreClient } from '../../shared/core-client';
import { BackgroundTasks } from '../../shared/background-tasks';
import { Editor } from '../../store/editor';

const GAMES = 1000;
/** Games in one go: few enough to be stopped between. */
const GAMES_A_GO = 20;
/** The seeds of each go, from one to another; the first is 1. */
const GOES = Array.from({ length: GAMES / GAMES_A_GO }, (_, i) => [i * GAMES_A_GO + 1, (i + 1) * GAMES_A_GO]);
const [WIDE, HIGH] = [520, 140];
/** Told apart without colour. */
const DASHES: Readonly<Record<PlanId, string>> = { sellAtOnce: '', hold: '9 4', upgradeFirst: '2 4' };
const MOST_BARS = 7;

/** What an economy does to those who play it: many games of a few plans, in workers, and after an edit beside those of before. */
@Component({
  selector: 'ee-economy-outcomes',
  templateUrl: './economy-outcomes.html',
  styleUrls: ['../evidence/plot.scss', './economy-outcomes.scss'],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EconomyOutcomes implements OnDestroy {
  private readonly client = inject(CoreClient);
  private readonly tasks = inject(BackgroundTasks);
  private readonly document = inject(Editor).document;
  protected readonly plans = PLANS;
  protected readonly days = MOST_DAYS;
  protected readonly facts = signal<EconomyFacts | undefined>(undefined);
  protected readonly known = signal(false);
  protected readonly now = signal<readonly Outcome[]>([]);
  protected readonly before = signal<readonly Outcome[]>([]);
  protected readonly failure = signal('');
  protected readonly working = signal(false);
  protected readonly progress = signal(0);
  protected readonly chosen = signal<PlanId>('sellAtOnce');
  private turn = 0;
  private reading = 0;
  /** What the rules of money were when the games were played. */
  private played = '';

  constructor() {
    effect(() => {
      const document = this.document();
      if (document) untracked(() => void this.look(document));
    });
  }

  ngOnDestroy(): void {
    this.turn++;
  }

  private async look(document: RulesetJson): Promise<void> {
    const reading = ++this.reading;
    try {
      const facts = await this.client.of<EconomyQuestions>('days').facts(document);
      if (reading !== this.reading) return;
      this.facts.set(facts);
      this.known.set(true);
      this.failure.set('');
      // Once played, the games follow every edit: the old ones stay for comparison.
      if (this.played !== '' && facts?.playable && this.played !== JSON.stringify(document)) void this.start();
    } catch (error) {
      if (reading === this.reading) this.failure.set(error instanceof Error ? error.message : String(error));
    }
  }

  protected stop(): void {
    this.turn++;
    this.working.set(false);
  }

  protected async start(): Promise<void> {
    const document = this.document();
    if (!document) return;
    const turn = ++this.turn;
    const text = JSON.stringify(document);
    // Whole games only are worth comparing with.
    if (this.played !== text && this.now().length === PLANS.length) this.before.set(this.now());
    this.played = text;
    this.working.set(true);
    this.progress.set(0);
    try {
      for (const [i, { id }] of PLANS.entries())
        await this.tasks.spread<readonly Game[]>({ document, concept: 'days', name: 'games', args: [id] }, GOES, {
          stopped: () => turn !== this.turn,
          told: (done, games) => {
            this.progress.set((i + done / GOES.length) / PLANS.length);
            // An unbroken row of seeds: the same luck for every version.
            const outcome = outcomeOf(id, games.flat());
            // What was there stays until there is something to put in its place.
            this.now.update((all) => PLANS.flatMap((plan) => (plan.id === id ? [outcome] : all.filter((one) => one.plan === plan.id))));
          },
        });
    } catch (error) {
      if (turn === this.turn) this.failure.set(error instanceof Error ? error.message : String(error));
    }
    if (turn === this.turn) this.working.set(false);
  }

  protected readonly rows = computed(() =>
    this.now().map((outcome) => {
      const { plan, days, reached, ruined, games } = outcome;
      const before = this.before().find((one) => one.plan === plan);
      const { label, says } = PLANS.find(({ id }) => id === plan)!;
      return {
        plan,
        label,
        says,
        games,
        days: reached.mean === 0 ? 'never' : around(days, 1),
        reached: shareWords(reached),
        ruined: shareWords(ruined),
        change: before && before !== outcome ? changeWords(before, outcome) : '',
      };
    }),
  );

  protected readonly chart = computed(() => {
    const all = [...this.now(), ...this.before()];
    const most = Math.max(10, ...all.map(({ byDay }) => byDay.length));
    const x = (day: number) => (WIDE * day) / most;
    const y = (share: number) => HIGH * (1 - share);
    const curve = ({ byDay, games }: Outcome) => {
      let sum = 0;
      return [0, ...byDay.map(({ goal }) => (sum += goal) / games)];
    };
    const points = (outcome: Outcome) => {
      const shares = curve(outcome);
      return [...shares, ...Array.from({ length: most + 1 - shares.length }, () => shares.at(-1)!)]
        .map((share, day) => `${x(day).toFixed(1)},${y(share).toFixed(1)}`)
        .join(' ');
    };
    return {
      lines: this.now().map((outcome, i) => {
        const shares = curve(outcome);
        const end = shares.at(-1)!;
        // Beside where it has risen to half of what it comes to, each at a height of its own.
        const half = end < 0.05 ? most * 0.7 : shares.findIndex((share) => share >= end * (0.35 + 0.2 * i));
        const at = end < 0.05 ? 0 : shares[half];
        return {
          plan: outcome.plan,
          points: points(outcome),
          dash: DASHES[outcome.plan],
          label: PLANS.find(({ id }) => id === outcome.plan)!.label,
          x: x(half) + (x(half) > 420 ? -8 : 8),
          // One that hardly rises is named above its line, the others below theirs.
          y: end < 0.3 ? y(end) - 6 : y(at) + (x(half) > 420 ? -4 : 12),
        };
      }),
      before: this.before().map((outcome) => ({ plan: outcome.plan, points: points(outcome) })),
      shares: [0, 0.5, 1].map((share) => ({ y: y(share), label: `${share * 100} %` })),
      ticks: Array.from({ length: Math.floor(most / 10) + 1 }, (_, i) => ({ day: i * 10, x: x(i * 10) })),
      words: this.rows()
        .map(({ label, days, reached }) => `${label}: ${reached} reach the goal, in ${days} days`)
        .join('; '),
    };
  });

  protected readonly spent = computed(() => {
    const outcome = this.now().find(({ plan }) => plan === this.chosen());
    if (!outcome) return undefined;
    const most = Math.max(1, ...[...outcome.spent, ...outcome.income].map(({ mean }) => mean));
    const bars = (list: Outcome['spent']) =>
      list.slice(0, MOST_BARS).map(({ label, mean, error }) => ({
        label,
        share: (55 * mean) / most,
        mean: Math.round(mean),
        error: Math.max(1, Math.round(2 * error)),
      }));
    return { plan: PLANS.find(({ id }) => id === outcome.plan)!.label, costs: bars(outcome.spent), income: bars(outcome.income) };
  });
}

const around = ({ mean, error }: Estimate, digits: number) => `${mean.toFixed(digits)} ± ${(2 * error).toFixed(digits)}`;

function shareWords({ mean, error }: Estimate): string {
  return `${percent(mean)} ± ${percent(2 * error)}`;
}

/** What an edit changed, game by game on the same luck. */
function changeWords(before: Outcome, after: Outcome): string {
  const { days, reached, ruined, both } = differenceOf(before, after);
  const moved = ({ mean, error }: Estimate) => Math.abs(mean) > 2 * error && mean !== 0;
  const parts = [
    ...(both > 0
      ? [
          moved(days)
            ? `${around({ mean: Math.abs(days.mean), error: days.error }, 2)} days ${days.mean > 0 ? 'longer' : 'shorter'}`
            : 'as many days',
        ]
      : []),
    ...(moved(reached) ? [`${percent(Math.abs(reached.mean))} ${reached.mean > 0 ? 'more' : 'fewer'} reach the goal`] : []),
    ...(moved(ruined) ? [`${percent(Math.abs(ruined.mean))} ${ruined.mean > 0 ? 'more' : 'fewer'} are ruined`] : []),
  ];
  return `than before, on the same luck: ${parts.join(', ') || 'no difference'}`;
}
