import { ScrollingModule, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  ElementRef,
  inject,
  Injector,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { RouterLink } from '@angular/router';
import { FoldedGroups } from './folded-groups';

/** Entries that stand together in the index. */
export interface IndexGroup {
  readonly name: string;
  readonly chapter: string;
  readonly entries: readonly { readonly id: string; readonly label: string; readonly kind: string }[];
}

/** How an entry stands that can hold or fail. */
export interface EntryState {
  readonly is: 'holds' | 'fails' | 'runs';
  readonly hint: string;
}
const STATE_WORDS: Readonly<Record<EntryState['is'], string>> = { holds: 'holds', fails: 'fails', runs: 'not run yet' };

type Row =
  | { readonly key: string; readonly group: string; readonly count: number; readonly folded: boolean }
  | {
      readonly key: string;
      readonly group?: undefined;
      readonly chapter: string;
      readonly id: string;
      readonly label: string;
      readonly kind: string;
    };

/** How many pictures a list that comes into the page may take until it is as high as its lines. */
const MOST_PICTURES = 20;
/** The height of a line, in pixels: as the style sheet has it. */
const LINE = 25;

/** The index of a chapter: however many entries there are, only those are drawn that can be seen. */
@Component({
  selector: 'ee-entry-index',
  imports: [MatTooltip, RouterLink, ScrollingModule],
  templateUrl: './entry-index.html',
  styleUrl: './entry-index.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EntryIndex {
  readonly groups = input.required<readonly IndexGroup[]>();
  readonly ruleset = input<string>();
  /** The tab that it is the index of: what is folded is remembered by it. */
  readonly tab = input.required<string>();
  /** The entry that is open, as chapter/id. */
  readonly here = input.required<string>();
  /** How many findings there are, and what is not taken, by chapter/id. */
  readonly badges = input.required<Readonly<Record<string, number>>>();
  readonly refused = input.required<Readonly<Record<string, string>>>();
  /** How each stands, where they are something that can hold or fail, by chapter/id: with what is said behind its label. */
  readonly states = input<Readonly<Record<string, EntryState>>>({});
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly injector = inject(Injector);
  private readonly destroyed = inject(DestroyRef);
  private readonly folding = inject(FoldedGroups);
  private readonly viewport = viewChild.required(CdkVirtualScrollViewport);
  protected readonly line = LINE;
  protected readonly text = signal('');
  /** The line that the keyboard is at; the open entry's until somebody moves. */
  private readonly at = signal<string | undefined>(undefined);

  protected readonly total = computed(() => this.groups().reduce((sum, { entries }) => sum + entries.length, 0));

  protected readonly rows = computed<readonly Row[]>(() => {
    const words = this.text().toLowerCase().trim();
    const rows: Row[] = [];
    for (const { name, chapter, entries } of this.groups()) {
      const shown =
        words === '' ? entries : entries.filter(({ id, label, kind }) => `${label} ${id} ${kind}`.toLowerCase().includes(words));
      if (shown.length === 0 && words !== '') continue;
      const folded = name !== '' && words === '' && this.folding.isFolded(this.tab(), name);
      if (name !== '') rows.push({ key: `/${chapter}/${name}`, group: name, count: shown.length, folded });
      if (!folded) for (const { id, label, kind } of shown) rows.push({ key: `${chapter}/${id}`, chapter, id, label, kind });
    }
    return rows;
  });
  protected readonly found = computed(() => this.rows().reduce((sum, { group }) => sum + (group === undefined ? 1 : 0), 0));

  /** The one line that the Tab key stops at. */
  protected readonly stop = computed(() => {
    const keys = new Set(this.rows().map(({ key }) => key));
    return [this.at(), this.here()].find((key) => key !== undefined && keys.has(key)) ?? this.rows()[0]?.key;
  });

  constructor() {
    // What comes in below the list makes it lower: the entry that is open stays in sight.
    afterNextRender(() => {
      const viewport = this.viewport().elementRef.nativeElement;
      let before = viewport.clientHeight;
      const resized = new ResizeObserver(() => {
        const lower = viewport.clientHeight < before;
        before = viewport.clientHeight;
        if (lower && this.text() === '') this.show(this.here());
      });
      resized.observe(viewport);
      this.destroyed.onDestroy(() => resized.disconnect());
    });
    // Whoever comes from elsewhere finds the entry in sight, and so does who has found it by the filter.
    effect(() => {
      this.here();
      if (this.text() !== '') return;
      untracked(() => {
        this.at.set(undefined);
        afterNextRender(() => this.bringInSight(this.here(), MOST_PICTURES), { injector: this.injector });
      });
    });
  }

  protected wordOf(state: EntryState): string {
    return STATE_WORDS[state.is];
  }

  protected readonly keyOf = (_: number, { key }: Row): string => key;

  protected fold(name: string): void {
    this.folding.toggle(this.tab(), name);
  }

  protected clear(box: HTMLInputElement): void {
    box.value = '';
    this.text.set('');
  }

  /** Keys in the filter: on into the list, or straight to the first that is found. */
  protected searchKey(event: KeyboardEvent, box: HTMLInputElement): void {
    const first = this.rows().find(({ group }) => group === undefined);
    if (event.key === 'ArrowDown' && first) this.focus(this.text() === '' ? this.stop()! : first.key);
    else if (event.key === 'Enter' && first) this.focus(first.key, true);
    else if (event.key === 'Escape' && this.text() !== '') this.clear(box);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  /** Keys in the list. */
  protected listKey(event: KeyboardEvent): void {
    if (event.altKey || event.ctrlKey || event.metaKey || event.shiftKey) return;
    const rows = this.rows();
    const index = rows.findIndex(({ key }) => key === this.stop());
    const row = rows[index];
    const steps: Readonly<Record<string, number>> = { ArrowDown: index + 1, ArrowUp: index - 1, Home: 0, End: rows.length - 1 };
    const next = steps[event.key] as number | undefined;
    if (next !== undefined) {
      if (next < 0) this.host.nativeElement.querySelector<HTMLInputElement>('input')?.focus();
      else if (next < rows.length) this.focus(rows[next].key);
    } else if (event.key === 'ArrowLeft' || event.key === 'ArrowRight') {
      const head = rows.slice(0, index + 1).findLast(({ group }) => group !== undefined);
      if (row?.group === undefined) {
        if (event.key === 'ArrowRight' || !head) return;
        this.focus(head.key);
      } else if (row.folded === (event.key === 'ArrowRight') && this.text() === '') this.fold(row.group);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }

  /** Brings a line into sight; a list that has just come into the page has its height some pictures later. */
  private bringInSight(key: string, pictures: number): void {
    const viewport = this.viewport();
    if (key !== this.here() || this.show(key) < 0 || pictures === 0) return;
    const size = viewport.measureScrollOffset('bottom') + viewport.measureScrollOffset('top') + viewport.getViewportSize();
    if (size < this.rows().length * LINE) requestAnimationFrame(() => this.bringInSight(key, pictures - 1));
  }

  /** Brings a line into sight, where it is not. */
  private show(key: string): number {
    const index = this.rows().findIndex((row) => row.key === key);
    if (index < 0) return index;
    const viewport = this.viewport();
    // What comes into the page has no size yet by what was measured before.
    viewport.checkViewportSize();
    const top = viewport.measureScrollOffset('top');
    const size = viewport.getViewportSize();
    if (index * LINE < top || (index + 1) * LINE > top + size) viewport.scrollToOffset(Math.max(0, index * LINE - size / 2));
    return index;
  }

  private focus(key: string, opens = false): void {
    this.at.set(key);
    if (this.show(key) < 0) return;
    const take = () => {
      const line = this.host.nativeElement.querySelector<HTMLElement>(`[data-key="${CSS.escape(key)}"]`);
      line?.focus({ preventScroll: true });
      if (opens) line?.click();
      return line !== null;
    };
    // What comes into sight is drawn with the next picture.
    if (!take()) requestAnimationFrame(() => afterNextRender(take, { injector: this.injector }));
  }
}
