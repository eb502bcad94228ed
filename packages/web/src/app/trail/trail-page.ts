import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { documentFeature } from '../store/document.reducer';
import { Trail } from './trail';

/** Who did what with the open ruleset. */
@Component({
  selector: 'ee-trail-page',
  imports: [Trail],
  template: `
    <section>
      <h1>Trail</h1>
      <p class="lead">Who edited this ruleset, changed its players, opened rooms and links, and poked.</p>
      @if (ruleset(); as id) {
        <ee-trail [ruleset]="id" />
      }
    </section>
  `,
  styles: `
    section {
      max-width: 900px;
      padding: 36px 40px;
    }
    h1 {
      font: 600 28px var(--serif);
    }
    .lead {
      font: 18px/1.5 var(--serif);
      color: var(--soft);
      margin: 6px 0 18px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TrailPage {
  protected readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
}
