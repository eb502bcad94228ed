import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { CheckResult } from '@eager-ember/core';
import { SpecContext } from '../rulebook/spec/spec-context';
import { CheckResults, outcomeAt } from './check-results';

/** What became of a sentence of a check, behind it or below it. */
@Component({
  selector: 'ee-verdict',
  template: `
    @if (outcome(); as outcome) {
      @if (outcome.holds) {
        <span class="good">{{ outcome.says === '' ? 'as it should' : 'as it should: ' + outcome.says }}</span>
      } @else {
        <span class="wrong">{{ outcome.failure?.says }}</span>
      }
    }
    @for (mistake of mistakes(); track mistake.path) {
      <span class="wrong">{{ mistake.message }}</span>
    }
  `,
  styles: `
    :host {
      font: 12.5px/1.4 var(--sans);
    }
    .good {
      color: var(--copy);
    }
    .wrong {
      display: block;
      color: var(--bad);
      font-weight: 650;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Verdict {
  /** The place of the sentence below the check. */
  readonly at = input.required<string>();
  /** It is about this place alone, and not about what stands below it. */
  readonly exactly = input(false);
  private readonly results = inject(CheckResults);
  private readonly context = inject(SpecContext);
  private readonly result = computed<CheckResult | undefined>(() => this.results.result(this.context.id()));
  protected readonly outcome = computed(() => outcomeAt(this.result(), this.at()));
  protected readonly mistakes = computed(() => {
    const within = (this.result()?.mistakes ?? []).filter(
      ({ path }) => path === this.at() || (!this.exactly() && path.startsWith(`${this.at()}/`)),
    );
    // The same is wrong with several parts of a sentence at times.
    return [...new Map(within.map((mistake) => [mistake.message, mistake])).values()];
  });
}
