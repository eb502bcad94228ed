import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { documentFeature } from '../store/document.reducer';
import { Editor } from '../store/editor';
import { TABS } from './chapters';
import { SourceEditor } from './source-editor';

/** The whole ruleset as JSON: also what has no page of its own yet, such as actors, pickups and the arena. */
@Component({
  selector: 'ee-whole-source',
  imports: [RouterLink, SourceEditor],
  template: `
    <nav class="tabs" aria-label="Chapters">
      @for (item of tabs; track item.key) {
        <a [routerLink]="['/r', ruleset(), 'rulebook', item.key]">{{ item.title }}</a>
      }
      <a class="here whole" aria-current="true">Whole source</a>
    </nav>
    <section>
      <p class="lead"><span class="soft">All of the ruleset, also its actors, teams, pickups and arena.</span> <button type="button" class="act" (click)="download()">Save as a file</button></p>
      <ee-source-editor />
    </section>
  `,
  styleUrl: './rulebook.scss',
  styles: `
    section {
      padding: 16px 24px;
      min-height: 0;
    }
    .lead {
      display: flex;
      gap: 18px;
      margin-bottom: 10px;
    }
    ee-source-editor {
      height: calc(100% - 32px);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WholeSource {
  private readonly editor = inject(Editor);
  protected readonly tabs = TABS;
  protected readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);

  protected download(): void {
    const document_ = this.editor.document();
    const url = URL.createObjectURL(new Blob([JSON.stringify(document_, null, 2) + '\n'], { type: 'application/json' }));
    const link = Object.assign(document.createElement('a'), {
      href: url,
      download: `${String(document_?.['name'])
        .replace(/[^\w-]+/g, '-')
        .toLowerCase()}.json`,
    });
    link.click();
    URL.revokeObjectURL(url);
  }
}
