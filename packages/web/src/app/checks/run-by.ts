import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import type { CheckQuestions, EntryCoverage } from '@eager-ember/core';
import { labelOf } from '../rulebook/entries';
import { CoreClient } from '../shared/core-client';
import { documentFeature } from '../store/document.reducer';
import { Editor } from '../store/editor';
import { CheckResults } from './check-results';

/** Most checks that are named. */
const MOST = 6;

/** Which checks have run an entry, and which of its actions and branches none has. */
@Component({
  selector: 'ee-run-by',
  imports: [RouterLink],
  template: `
    @if (coverage(); as now) {
      <h2>Run by checks</h2>
      <p [class.soft]="now.checks.length === 0">
        @for (id of shown(); track id) {
          <a [routerLink]="['/r', ruleset(), 'checks', id]">{{ called(id) }}</a>{{ $last ? (left() > 0 ? ' and ' + left() + ' more.' : '.') : ', ' }}
        } @empty {
          No check has run it.
        }
        @if (now.actions > 0 && now.checks.length > 0) {
          <span class="soft">{{ now.actions - now.missing.length }} of its {{ now.actions }} {{ now.actions === 1 ? 'action' : 'actions' }}@if (now.missing.length > 0) {; not {{ missing() }}}.</span>
        }
        <ng-container>{{ ' ' }}</ng-container>
        @if (now.branches > 0 && now.checks.length > 0) {
          <span class="soft">{{ now.branches - now.untaken.length }} of its {{ now.branches }} {{ now.branches === 1 ? 'branch' : 'branches' }}@if (now.untaken.length > 0) {; not {{ untaken() }}}.</span>
        }
      </p>
    }
  `,
  styles: `
    h2 {
      font: 700 13.5px var(--sans);
      margin: 14px 0 4px;
    }
    a {
      border-bottom: 1px solid color-mix(in srgb, var(--ember) 55%, transparent);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RunBy {
  readonly chapter = input.required<string>();
  readonly id = input.required<string>();
  private readonly client = inject(CoreClient);
  private readonly editor = inject(Editor);
  private readonly results = inject(CheckResults);
  protected readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
  private readonly known = signal<EntryCoverage | undefined>(undefined);
  protected readonly coverage = computed(() => (this.results.total() > 0 ? this.known() : undefined));
  protected readonly shown = computed(() => this.known()?.checks.slice(0, MOST) ?? []);
  protected readonly left = computed(() => (this.known()?.checks.length ?? 0) - this.shown().length);
  protected readonly missing = computed(() => (this.known()?.missing ?? []).map(inWords).join(', '));
  protected readonly untaken = computed(() => (this.known()?.untaken ?? []).map(inWords).join(', '));

  constructor() {
    effect(() => {
      const [document, chapter, id, running] = [this.editor.document(), this.chapter(), this.id(), this.results.running()];
      if (document && !running && this.results.total() > 0)
        untracked(() => {
          const asked = this.client.of<CheckQuestions>('checks').coverageOfEntry(document, chapter, id);
          void asked.then((coverage) => id === this.id() && this.known.set(coverage)).catch(() => undefined);
        });
    });
  }

  protected called(id: string): string {
    return labelOf(this.editor.document(), 'checks', id);
  }
}

/** The place of an action or a branch, for reading: `on hit 1`. */
const inWords = (place: string): string =>
  place
    .split('/')
    .map((part) => (/^\d+$/.test(part) ? String(Number(part) + 1) : part.replace(/([A-Z])/g, ' $1').toLowerCase()))
    .join(' ');
