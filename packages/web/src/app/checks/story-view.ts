import { ChangeDetectionStrategy, Component, computed, effect, inject, input, output, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import type { CheckFailure, CheckStory } from '@eager-ember/core';
import { EvidenceChart } from '../rulebook/evidence/evidence-chart';
import { lanesOf, spanWords } from '../rulebook/evidence/lanes';
import { documentFeature } from '../store/document.reducer';

/** A story to be read: values over time, what was on, what went wrong and what led to it, and all that was told. */
@Component({
  selector: 'ee-story-view',
  imports: [EvidenceChart, RouterLink],
  templateUrl: './story-view.html',
  styleUrl: './check-story.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StoryView {
  readonly story = input.required<CheckStory>();
  /** That what was found is what is expected. */
  readonly right = output<NonNullable<CheckFailure['right']>>();
  protected readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
  protected readonly cursor = signal<number | undefined>(undefined);
  protected readonly barWords = spanWords;

  /** What is not as it should be, each with what led to it. */
  protected readonly wrong = computed(() => {
    const story = this.story();
    const { outcomes } = story.result;
    return outcomes.flatMap(({ path, t, holds, failure }) =>
      holds || !failure ? [] : [{ path, t, ...failure, ...(story.chains[path] ?? { links: [] }) }],
    );
  });
  protected readonly mistakes = computed(() => this.story().result.mistakes);
  /** The moment at which something first went wrong. */
  protected readonly moment = computed(() => this.wrong()[0]?.t);
  protected readonly lanes = computed(() => lanesOf(this.story().evidence.spans));
  /** The values at the cursor, or at the moment that went wrong. */
  protected readonly reading = computed(() => {
    const [story, t] = [this.story(), this.cursor() ?? this.moment()];
    if (t === undefined || story.evidence.series.length === 0) return undefined;
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
    // Another story has other moments.
    effect(() => {
      this.story();
      this.cursor.set(undefined);
    });
  }
}
