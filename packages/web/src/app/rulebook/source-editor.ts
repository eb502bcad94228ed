import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  input,
  type OnDestroy,
  signal,
  viewChild,
} from '@angular/core';
import type { EditorView } from '@codemirror/view';
import type { Problem } from '@eager-ember/core';
import { CoreClient } from '../shared/core-client';
import { Editor } from '../store/editor';
import type { RulesetJson } from '../shared/api';
import { entriesOf } from './entries';
import type * as CodeMirror from './code-mirror';

/**
 * JSON of one entry, or of the whole ruleset where no chapter is named, validated as it is typed. What is sound is
 * applied at once; what is not is listed, and the last sound version keeps working.
 */
@Component({
  selector: 'ee-source-editor',
  template: `
    <div class="editor" #host></div>
    <div class="verdict" role="status">
      @if (problems().length > 0) {
        <ol class="refusal">
          @for (problem of problems().slice(0, 12); track $index) {
            <li>
              <code>{{ problem.path || '/' }}</code> {{ problem.message }}
            </li>
          }
          @if (problems().length > 12) {
            <li>and {{ problems().length - 12 }} more</li>
          }
        </ol>
      } @else {
        <span class="soft">{{ touched() ? 'Sound, and applied.' : 'Edits apply as soon as they are sound.' }}</span>
      }
    </div>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-rows: minmax(200px, 1fr) auto;
      height: calc(100% - 80px);
    }
    .editor {
      border: 1px solid var(--hair);
      border-radius: 6px;
      min-height: 0;
      overflow: hidden;
    }
    .verdict {
      padding: 8px 0;
      max-height: 180px;
      overflow-y: auto;
    }
    li {
      padding: 1px 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SourceEditor implements OnDestroy {
  readonly chapter = input('');
  readonly id = input('');
  private readonly editor = inject(Editor);
  private readonly client = inject(CoreClient);
  private readonly host = viewChild.required<ElementRef<HTMLElement>>('host');
  private mirror: typeof CodeMirror | undefined;
  private view: EditorView | undefined;
  private checking = 0;
  /** What was typed here and proposed, oldest first, until the document says it. */
  private readonly proposed: string[] = [];
  protected readonly problems = signal<readonly Problem[]>([]);
  protected readonly touched = signal(false);

  private readonly json = computed(() => {
    const document = this.editor.document();
    const value = this.chapter() === '' ? document : entriesOf(document, this.chapter()).find((entry) => entry.id === this.id());
    return JSON.stringify(value ?? null, null, 2);
  });

  constructor() {
    afterNextRender(() => void this.start());
    effect(() => {
      const text = this.json();
      // What was typed here is in the text already, which may be further on by now; an undo, or another entry, replaces it.
      const mine = this.proposed.indexOf(JSON.stringify(JSON.parse(text)));
      if (mine >= 0) return void this.proposed.splice(0, mine + 1);
      if (this.view && this.mirror && !sameJson(this.view.state.doc.toString(), text)) {
        this.mirror.load(this.view, text);
        this.problems.set([]);
      }
    });
  }

  private async start(): Promise<void> {
    this.mirror = await import('./code-mirror');
    this.view = this.mirror.jsonEditor(this.host().nativeElement, this.json(), 'Source', (text) => void this.typed(text));
  }

  private async typed(text: string): Promise<void> {
    const turn = ++this.checking;
    this.touched.set(true);
    let value: unknown;
    try {
      value = JSON.parse(text);
    } catch {
      const problems = await this.client.core.checkText(text);
      return turn === this.checking ? this.problems.set(problems) : undefined;
    }
    const repeated = await this.client.core.repeatedNames(text);
    if (repeated.length > 0) return turn === this.checking ? this.problems.set(repeated) : undefined;
    // What is pasted of an earlier version of the format is taken to mean what it meant.
    if (this.chapter() === '') value = await this.client.core.upgraded(value);
    const compact = JSON.stringify(value);
    // Nothing is on its way and nothing has changed: only white space was touched.
    if (this.proposed.length === 0 && sameJson(compact, this.json())) return this.problems.set([]);
    this.proposed.push(compact);
    const problems = await this.editor.propose(
      (document) => this.patch(document, value),
      this.chapter() === '' ? 'edit the source' : `edit the source of ${this.id()}`,
    );
    if (problems.length > 0) this.proposed.splice(this.proposed.indexOf(compact), 1);
    if (turn === this.checking) this.problems.set(problems);
  }

  private patch(document: RulesetJson, value: unknown) {
    if (this.chapter() === '') {
      if (typeof value !== 'object' || value === null || Array.isArray(value)) return [{ op: 'replace' as const, path: '', value }];
      return JSON.stringify(document) === JSON.stringify(value) ? [] : [{ op: 'replace' as const, path: '', value }];
    }
    const index = entriesOf(document, this.chapter()).findIndex((entry) => entry.id === this.id());
    return index < 0 || JSON.stringify(entriesOf(document, this.chapter())[index]) === JSON.stringify(value)
      ? []
      : [{ op: 'replace' as const, path: `/${this.chapter()}/${index}`, value }];
  }

  ngOnDestroy(): void {
    this.view?.destroy();
  }
}

function sameJson(text: string, other: string): boolean {
  try {
    return JSON.stringify(JSON.parse(text)) === JSON.stringify(JSON.parse(other));
  } catch {
    return false;
  }
}
