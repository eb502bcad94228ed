import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { Findings, type PlacedFinding } from '../store/findings';

/** What the analysis says of one entry, beside its spec. */
@Component({
  selector: 'ee-entry-findings',
  template: `
    @for (finding of own(); track finding.path + finding.kind) {
      <p class="finding">
        {{ finding.message }}
        @if (finding.fix && finding.kind !== 'unused') {
          <button type="button" class="chip" (click)="mend(finding)">{{ finding.fix.label }}</button>
        }
      </p>
    }
    @if (refusal()) {
      <p class="refusal" role="alert">{{ refusal() }}</p>
    }
  `,
  styles: `
    .finding {
      border-left: 3px solid var(--brass);
      padding: 1px 0 1px 9px;
      margin-bottom: 8px;
      font-size: 13px;
    }
    .chip {
      margin-left: 6px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EntryFindings {
  readonly chapter = input.required<string>();
  readonly id = input.required<string>();
  private readonly findings = inject(Findings);
  protected readonly refusal = signal('');
  protected readonly own = computed(() => this.findings.of(this.chapter(), this.id()));

  protected async mend(finding: PlacedFinding): Promise<void> {
    const problems = await this.findings.fix(finding);
    this.refusal.set(problems.map((problem) => problem.message).join(' '));
  }
}
