import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import { CHAPTERS } from '../rulebook/chapters';
import { wayTo } from '../rulebook/places';
import { documentFeature } from '../store/document.reducer';
import { Findings, type PlacedFinding } from '../store/findings';

/** Everything that the analysis says, with its place and, where there is one, its fix. */
@Component({
  selector: 'ee-findings-list',
  imports: [MatDialogModule],
  template: `
    <h2 mat-dialog-title>{{ findings.all().length === 0 ? 'No findings' : 'Findings' }}</h2>
    <mat-dialog-content>
      <ul>
        @for (finding of findings.all(); track finding.path + finding.kind) {
          <li>
            <p>
              <button type="button" class="act" (click)="go(finding)">{{ finding.label }}</button><span class="soft">{{ ' ' + titleOf(finding) }}</span>
            </p>
            <p class="message">{{ finding.message }}</p>
            @if (finding.fix; as fix) {
              <p><button type="button" class="chip" (click)="mend(finding)">{{ fix.label }}</button></p>
            }
          </li>
        } @empty {
          <li class="soft">Nothing in this ruleset looks like a mistake.</li>
        }
      </ul>
      @if (refusal()) {
        <p class="refusal" role="alert">{{ refusal() }}</p>
      }
    </mat-dialog-content>
  `,
  styles: `
    ul {
      max-width: 600px;
    }
    li {
      padding: 8px 0;
      border-bottom: 1px solid var(--hair);
    }
    .message {
      font: 15px/1.5 var(--serif);
      color: var(--ink);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FindingsList {
  protected readonly findings = inject(Findings);
  private readonly router = inject(Router);
  private readonly dialog = inject(MatDialogRef<FindingsList>);
  private readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
  protected readonly refusal = signal('');

  protected titleOf({ chapter }: PlacedFinding): string {
    return CHAPTERS.find(({ key }) => key === chapter)?.title ?? chapter;
  }

  protected go(finding: PlacedFinding): void {
    this.dialog.close();
    const { commands, query } = wayTo(this.ruleset() ?? '', finding);
    void this.router.navigate([...commands], { queryParams: query });
  }

  protected async mend(finding: PlacedFinding): Promise<void> {
    const problems = await this.findings.fix(finding);
    this.refusal.set(problems.map((problem) => problem.message).join(' '));
  }
}
