import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import type { CheckQuestions, CheckStory } from '@eager-ember/core';
import { SpecContext } from '../rulebook/spec/spec-context';
import { EvidenceChart } from '../rulebook/evidence/evidence-chart';
import { lanesOf, spanWords } from '../rulebook/evidence/lanes';
import { CoreClient } from '../shared/core-client';
import type { RulesetJson } from '../shared/api';
import { documentFeature } from '../store/document.reducer';
import { CheckResults } from './check-results';
import { Covered } from './covered';

/** What happened in a check: values over time, what was on, what was told, and why it is not what was expected. */
@Component({
  selector: 'ee-check-story',
  imports: [Covered, EvidenceChart, RouterLink],
  templateUrl: './check-story.html',
  styleUrl: './check-story.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CheckStoryPage {
  readonly id = input.required<string>();
  private readonly client = inject(CoreClient);
  private readonly context = inject(SpecContext);
  private readonly results = inject(CheckResults);
  protected readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
  protected readonly story = signal<CheckStory | undefined>(undefined);
  protected readonly failure = signal('');
  protected readonly cursor = signal<number | undefined>(undefined);
  /** The row of its table that is looked at; the first that fails where nobody chose one. */
  protected readonly chosen = signal<number | undefined>(undefined);
  private of = '';
  private turn = 0;

  protected readonly rows = computed(() => this.results.result(this.id())?.rows ?? []);
  protected readonly row = computed(() => this.chosen() ?? this.rows().find(({ ok }) => !ok)?.row ?? 0);
  protected readonly seed = computed(() => Number(this.context.value('seed') ?? 1));

  /** What is not as it should be, each with what led to it. */
  protected readonly wrong = computed(() => {
    const story = this.story();
    if (!story) return [];
    const { outcomes } = story.result;
    return outcomes.flatMap(({ path, t, holds, failure }) =>
      holds || !failure ? [] : [{ path, t, ...failure, ...(story.chains[path] ?? { links: [] }) }],
    );
  });
  protected readonly mistakes = computed(() => this.story()?.result.mistakes ?? []);
  /** The moment at which something first went wrong. */
  protected readonly moment = computed(() => this.wrong()[0]?.t);
  protected readonly lanes = computed(() => lanesOf(this.story()?.evidence.spans ?? []));
  /** The values at the cursor, or at the moment that went wrong. */
  protected readonly reading = computed(() => {
    const [story, t] = [this.story(), this.cursor() ?? this.moment()];
    if (!story || t === undefined || story.evidence.series.length === 0) return undefined;
    const { series, perSecond } = story.evidence;
    const at = Math.max(0, Math.round(t * perSecond) - 1);
    return {
      t,
      values: series.map(
        ({ label, values, decimals }) => `${label.toLowerCase()} ${values[Math.min(values.length - 1, at)]?.toFixed(decimals)}`,
      ),
    };
  });

  constructor() {
    effect(() => {
      const [document, id, chosen] = [this.context.document(), this.id(), this.chosen()];
      if (document) untracked(() => void this.look(document, id, chosen));
    });
  }

  private async look(document: RulesetJson, id: string, row: number | undefined): Promise<void> {
    const turn = ++this.turn;
    if (this.of !== id) {
      this.of = id;
      this.story.set(undefined);
      this.cursor.set(undefined);
      if (row !== undefined) return this.chosen.set(undefined);
    }
    try {
      const story = await this.client.of<CheckQuestions>('checks').story(document, id, row);
      if (turn !== this.turn) return;
      this.story.set(story);
      this.failure.set('');
    } catch (error) {
      if (turn === this.turn) this.failure.set(error instanceof Error ? error.message : String(error));
    }
  }

  protected take(path: string, value: number): void {
    void this.context.set(path, value);
  }

  protected readonly barWords = spanWords;
}
