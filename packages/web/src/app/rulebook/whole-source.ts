import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Editor } from '../store/editor';
import { ChapterTabs } from './chapter-tabs';
import { SourceEditor } from './source-editor';

/** The whole ruleset as JSON: also what has no page of its own yet, such as teams and curves. */
@Component({
  selector: 'ee-whole-source',
  imports: [ChapterTabs, SourceEditor],
  template: `
    <ee-chapter-tabs here="source" />
    <section>
      <p class="lead"><span class="soft">All of the ruleset, also its teams and curves.</span> <button type="button" class="act" (click)="download()">Save as a file</button></p>
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
