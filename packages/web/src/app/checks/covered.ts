import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import type { ChapterCoverage, CheckQuestions } from '@eager-ember/core';
import { labelOf } from '../rulebook/entries';
import { SpecContext } from '../rulebook/spec/spec-context';
import { CoreClient } from '../shared/core-client';
import { documentFeature } from '../store/document.reducer';
import { CheckResults } from './check-results';

/** Chapter by chapter, how many entries at least one check has run; and which none has. */
@Component({
  selector: 'ee-covered',
  imports: [RouterLink],
  template: `
    @if (chapters().length > 0) {
      <h2>Covered by checks <span class="soft">rules that at least one check has run</span></h2>
      <ul>
        @for (one of chapters(); track one.chapter) {
          <li>
            <button type="button" [attr.aria-expanded]="open() === one.chapter" [disabled]="one.uncovered.length === 0" (click)="open.set(open() === one.chapter ? '' : one.chapter)">
              <span class="title">{{ one.title }}</span>
              <span class="bar" aria-hidden="true"><span [style.width.%]="(100 * one.covered) / one.total"></span></span>
              <span class="mono soft">{{ one.covered }} of {{ one.total }}</span>
            </button>
            @if (open() === one.chapter) {
              <p class="soft">
                No check has run
                @for (id of one.uncovered; track id) {
                  <a [routerLink]="['/r', ruleset(), 'rulebook', one.chapter, id]">{{ called(one.chapter, id) }}</a>{{ $last ? '.' : ', ' }}
                }
              </p>
            }
          </li>
        }
      </ul>
    }
  `,
  styles: `
    :host {
      display: block;
      margin-top: 14px;
    }
    h2 {
      font: 700 13.5px var(--sans);
      margin-bottom: 5px;
    }
    h2 .soft {
      font-weight: 400;
      margin-left: 8px;
    }
    ul {
      list-style: none;
      padding: 0;
      margin: 0;
      columns: 2;
      column-gap: 26px;
    }
    li {
      break-inside: avoid;
    }
    button {
      display: grid;
      grid-template-columns: 92px 1fr 62px;
      align-items: center;
      gap: 8px;
      width: 100%;
      padding: 1px 0;
      font-size: 12.5px;
      text-align: left;
    }
    button:hover:enabled .title {
      color: var(--ember);
    }
    .title {
      white-space: nowrap;
      overflow: hidden;
      text-overflow: ellipsis;
    }
    .mono {
      font-size: 11px;
      text-align: right;
    }
    .bar {
      height: 6px;
      background: var(--hair);
    }
    .bar span {
      display: block;
      height: 6px;
      background: var(--copy);
    }
    p {
      font-size: 12.5px;
      margin: 0 0 4px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Covered {
  private readonly client = inject(CoreClient);
  private readonly context = inject(SpecContext);
  private readonly results = inject(CheckResults);
  protected readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
  protected readonly all = signal<readonly ChapterCoverage[]>([]);
  protected readonly open = signal('');
  protected readonly chapters = computed(() => (this.results.total() > 0 ? this.all() : []));

  constructor() {
    // It is of what was run last: an edit that is being run is told of afterwards.
    effect(() => {
      const [document, running] = [this.context.document(), this.results.running()];
      if (document && !running)
        untracked(() => {
          const asked = this.client.of<CheckQuestions>('checks').coverage(document);
          void asked.then((chapters) => this.all.set(chapters)).catch(() => undefined);
        });
    });
  }

  protected called(chapter: string, id: string): string {
    return labelOf(this.context.document(), chapter, id);
  }
}
