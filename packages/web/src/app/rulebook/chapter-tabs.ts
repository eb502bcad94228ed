import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { documentFeature } from '../store/document.reducer';
import { TABS } from './chapters';

/** Pages of the book that are of no single chapter. */
const WHOLE = [
  { key: 'arena', title: 'Arena' },
  { key: 'wiring', title: 'Wiring' },
  { key: 'players', title: 'Players' },
  { key: 'source', title: 'Whole source' },
];

/** The tabs of the book: its chapters, then what is of all of them. */
@Component({
  selector: 'ee-chapter-tabs',
  imports: [RouterLink],
  template: `
    <nav aria-label="Chapters">
      @for (item of tabs; track item.key) {
        <a [routerLink]="['/r', ruleset(), 'rulebook', item.key]" [class.here]="here() === item.key" [attr.aria-current]="here() === item.key ? 'true' : null">{{ item.tab ?? item.title }}</a>
      }
      @for (item of whole; track item.key) {
        <a [class.first]="$first" [routerLink]="['/r', ruleset(), 'rulebook', item.key]" [class.here]="here() === item.key" [attr.aria-current]="here() === item.key ? 'true' : null">{{ item.title }}</a>
      }
    </nav>
  `,
  styles: `
    nav {
      display: flex;
      align-items: end;
      height: 44px;
      padding: 0 20px;
      border-bottom: 1px solid var(--hair);
    }
    a {
      padding: 8px 11px;
      color: var(--soft);
      border-radius: 6px 6px 0 0;
    }
    a:hover {
      color: var(--ink);
    }
    .here {
      background: var(--leaf);
      color: var(--ink);
      font-weight: 700;
    }
    .first {
      margin-left: auto;
    }
    @media (max-width: 1120px) {
      nav {
        padding: 0 10px;
      }
      a {
        padding: 8px 7px;
        font-size: 13px;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ChapterTabs {
  /** The chapter or page that is open. */
  readonly here = input.required<string>();
  protected readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
  protected readonly tabs = TABS;
  protected readonly whole = WHOLE;
}
