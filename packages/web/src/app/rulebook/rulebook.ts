import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { Router, RouterLink, RouterLinkActive } from '@angular/router';
import { Store } from '@ngrx/store';
import { documentFeature } from '../store/document.reducer';
import { Editor } from '../store/editor';
import { AbilitySentences } from './abilities/ability-sentences';
import { AttributeSentences } from './attributes/attribute-sentences';
import { chapterOf, entriesOf, type EntryJson, freshId, TABS } from './chapters';
import { EffectSentences } from './effects/effect-sentences';
import { EvidencePage } from './evidence/evidence-page';
import { SourceEditor } from './source-editor';
import { SpecContext } from './spec/spec-context';
import { StatusSentences } from './statuses/status-sentences';

interface Group {
  readonly name: string;
  readonly chapter: string;
  readonly entries: readonly { readonly id: string; readonly label: string; readonly kind: string }[];
}

/** The open book: an index, the spec of one entry, and the evidence beside it. */
@Component({
  selector: 'ee-rulebook',
  imports: [
    RouterLink,
    RouterLinkActive,
    MatTooltip,
    AttributeSentences,
    EffectSentences,
    AbilitySentences,
    StatusSentences,
    EvidencePage,
    SourceEditor,
  ],
  templateUrl: './rulebook.html',
  styleUrl: './rulebook.scss',
  providers: [SpecContext],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Rulebook {
  readonly chapter = input.required<string>();
  readonly entry = input<string>();
  private readonly router = inject(Router);
  private readonly editor = inject(Editor);
  protected readonly context = inject(SpecContext);
  protected readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
  protected readonly tabs = TABS;
  protected readonly source = signal(false);
  protected readonly refusal = signal('');
  protected readonly info = computed(() => chapterOf(this.chapter()));
  /** The tab that is open: statuses are listed among the stats. */
  protected readonly tab = computed(() => (this.chapter() === 'statuses' ? 'attributes' : this.chapter()));
  protected readonly current = computed(() => this.context.entry());

  protected readonly groups = computed<readonly Group[]>(() => {
    const document = this.context.document();
    const groups = new Map<string, EntryJson[]>();
    for (const entry of entriesOf(document, this.tab())) {
      const name = typeof entry['group'] === 'string' ? entry['group'] : '';
      groups.set(name, [...(groups.get(name) ?? []), entry]);
    }
    const own = [...groups].map(([name, entries]) => ({ name, chapter: this.tab(), entries: entries.map(inIndex) }));
    const also = chapterOf(this.tab())?.also;
    return also === undefined ? own : [...own, { name: 'Statuses', chapter: also, entries: entriesOf(document, also).map(inIndex) }];
  });

  constructor() {
    effect(() => {
      this.context.chapter.set(this.chapter());
      this.context.id.set(this.entry() ?? '');
      untracked(() => this.refusal.set(''));
    });
    // A chapter without a chosen entry opens at its first; one that is gone opens the chapter.
    effect(() => {
      if (!this.info()) return void this.router.navigate(['/r', this.ruleset(), 'rulebook', 'attributes']);
      const entries = entriesOf(this.context.document(), this.chapter());
      if (entries.length > 0 && !entries.some((e) => e.id === this.entry())) this.go(this.chapter(), entries[0].id, true);
    });
  }

  protected go(chapter: string, id: string, replaceUrl = false): void {
    void this.router.navigate(['/r', this.ruleset(), 'rulebook', chapter, id], { replaceUrl });
  }

  protected async add(chapter: string): Promise<void> {
    const info = chapterOf(chapter)!;
    const taken = entriesOf(this.context.document(), chapter);
    const label = `New ${info.one}`;
    const id = freshId(
      label,
      taken.map((entry) => entry.id),
    );
    const entry = { id, label, ...info.fresh() };
    const list = (document: object) =>
      chapter in document
        ? [{ op: 'add' as const, path: `/${chapter}/-`, value: entry }]
        : [{ op: 'add' as const, path: `/${chapter}`, value: [entry] }];
    const [problem] = await this.editor.propose(list, `new ${info.one}`);
    if (problem) this.refusal.set(problem.message);
    else this.go(chapter, id);
  }

  /** Deletes the entry; where it is in use the places are named instead, and nothing happens. */
  protected async remove(): Promise<void> {
    const { label } = this.current()!;
    const problems = await this.context.change(`delete ${label}`, (base) => [{ op: 'remove', path: base }]);
    if (problems.length > 0)
      this.refusal.set(
        `${label} is in use and stays: ${problems.map((p) => `${p.path.slice(1).replace(/\//g, ' ')}`).join('; ')}. Take it out there first.`,
      );
  }

  protected async relabel(box: HTMLInputElement): Promise<void> {
    const label = box.value.trim();
    if (label === '' || label === this.current()?.label) return void (box.value = this.current()?.label ?? '');
    const problems = await this.context.set('label', label);
    this.refusal.set(problems.map((p) => p.message).join(' '));
  }
}

const inIndex = ({ id, label, kind }: EntryJson) => ({ id, label, kind: typeof kind === 'string' ? kind : '' });
