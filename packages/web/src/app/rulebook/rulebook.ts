import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  type DestroyableInjector,
  effect,
  ElementRef,
  inject,
  Injector,
  input,
  signal,
  untracked,
} from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { MatMenuModule } from '@angular/material/menu';
import { MatTooltip } from '@angular/material/tooltip';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { OpenRoom } from '../playtest/open-room';
import { CoreClient } from '../shared/core-client';
import { documentFeature } from '../store/document.reducer';
import type { RulesetJson } from '../shared/api';
import { Editor, patchOf } from '../store/editor';
import { IdBox } from './spec/id-box';
import { Findings } from '../store/findings';
import { CheckResults } from '../checks/check-results';
import { HuntRuns } from '../hunts/hunt-runs';
import { NgComponentOutlet } from '@angular/common';
import type { ChapterPage, PagePieces, Piece } from './chapter-page';
import { ChapterTabs } from './chapter-tabs';
import { chapterOf, CHAPTERS, tabOf } from './chapters';
import { entriesOf, type EntryJson, freshId, isGiven, writtenIn } from './entries';
import { Deletion, type UseInWords } from './deletion';
import { EntryFindings } from './entry-findings';
import { EntryIndex, type IndexGroup } from './entry-index';
import type { ExchangedFile } from './file-exchange';
import { EvidencePage } from './evidence/evidence-page';
import { PAGE_PIECES } from './page-pieces';
import { SourceEditor } from './source-editor';
import { KeptRefusals } from './spec/kept-refusals';
import { Descriptions } from './spec/described';
import { SpecContext } from './spec/spec-context';

interface Shown extends PagePieces {
  readonly chapter: string;
  readonly injector: DestroyableInjector;
}

/** The open book: an index, the spec of one entry, and the evidence beside it. */
@Component({
  selector: 'ee-rulebook',
  imports: [
    ChapterTabs,
    NgComponentOutlet,
    RouterLink,
    MatMenuModule,
    MatTooltip,
    EntryFindings,
    EntryIndex,
    IdBox,
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
  private readonly client = inject(CoreClient);
  private readonly descriptions = inject(Descriptions);
  private readonly dialog = inject(MatDialog);
  private readonly deletion = inject(Deletion);
  private readonly findings = inject(Findings);
  private readonly checks = inject(CheckResults);
  private readonly hunts = inject(HuntRuns);
  private readonly openRoom = inject(OpenRoom);
  private readonly injector = inject(Injector);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  protected readonly context = inject(SpecContext);
  protected readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
  protected readonly source = signal(false);
  protected readonly refusal = signal('');
  /** Where the entry is used, when it was to be deleted and can't be. */
  protected readonly inUse = signal<readonly UseInWords[]>([]);
  /** Counts the entries that were opened; the same one under another id is none. */
  protected readonly visits = signal<readonly { readonly number: number }[]>([{ number: 0 }]);
  protected readonly info = computed(() => chapterOf(this.chapter()));
  /** The tab that is open: statuses are listed among the stats, clips among the abilities. */
  protected readonly tab = computed(() => tabOf(this.chapter()));
  /** What can be begun under this tab. */
  protected readonly begins = computed(() =>
    [this.tab(), ...(chapterOf(this.tab())?.also ?? [])].map((key) => ({ key, one: chapterOf(key)?.one ?? key })),
  );
  /** The entry is one that every ruleset has, as the core gives it. */
  protected readonly given = computed(() => isGiven(this.context.document(), this.chapter(), this.context.id()));
  protected readonly current = computed(() => this.context.entry());
  protected readonly former = computed(() => (this.current()?.['formerly'] as readonly string[] | undefined) ?? []);
  /** How many findings there are, by chapter and id. */
  /** What was written into a part and is not taken. */
  protected readonly refused = inject(KeptRefusals).byEntry;
  protected readonly badges = computed(() => {
    const counts: Record<string, number> = {};
    for (const { chapter, id } of this.findings.all()) counts[`${chapter}/${id}`] = (counts[`${chapter}/${id}`] ?? 0) + 1;
    return counts;
  });

  /** How each check stands, where checks are what is listed. */
  protected readonly states = computed(() => (this.info()?.workplace ? { ...this.checks.states(), ...this.hunts.states() } : NO_STATES));

  /** What the page of this chapter is made of, once it is known what can stand in it. */
  protected readonly pieces = signal<Shown | undefined>(undefined);

  /** The same, where they are those of the chapter that is open. */
  protected readonly own = computed(() => (this.pieces()?.chapter === this.chapter() ? this.pieces() : undefined));

  protected readonly groups = computed<readonly IndexGroup[]>(() => {
    const document = this.context.document();
    const groups = new Map<string, EntryJson[]>();
    const worked = chapterOf(this.tab())?.groups;
    for (const entry of entriesOf(document, this.tab())) {
      const named = typeof entry['group'] === 'string' ? entry['group'] : '';
      const name = worked ? worked.of(document, entry.id) : named;
      const group = groups.get(name);
      if (group) group.push(entry);
      else groups.set(name, [entry]);
    }
    // Groups that are worked out stand in an order of their own.
    const order = worked?.order ?? [...groups.keys()];
    const own = [...groups]
      .sort(([a], [b]) => order.indexOf(a) - order.indexOf(b))
      .map(([name, entries]) => ({ name, chapter: this.tab(), entries: entries.map(inIndex) }));
    const { also: others = [], alsoFirst } = chapterOf(this.tab()) ?? {};
    const also = others.map((chapter) => ({
      name: chapterOf(chapter)!.title,
      chapter,
      entries: entriesOf(document, chapter).map(inIndex),
    }));
    return alsoFirst ? [...also, ...own] : [...own, ...also];
  });

  constructor() {
    effect(() => {
      const [chapter, id] = [this.chapter(), this.entry() ?? ''];
      untracked(() => {
        // The page knows the new id of an entry before its address does: that is no other entry.
        if (chapter !== this.context.chapter() || id !== this.context.id()) this.visits.update(([{ number }]) => [{ number: number + 1 }]);
        this.context.chapter.set(chapter);
        this.context.id.set(id);
        this.say('');
      });
      if ((history.state as { naming?: string } | null)?.naming === this.entry())
        afterNextRender(() => this.host.nativeElement.querySelector<HTMLInputElement>('.title')?.select(), { injector: this.injector });
    });
    effect(() => {
      const page = this.info();
      if (page) untracked(() => void this.show(page));
    });
    inject(DestroyRef).onDestroy(() => this.pieces()?.injector.destroy());
    // A chapter without a chosen entry opens at its first; one that is gone opens the chapter, one that was renamed follows.
    effect(() => {
      if (!this.info()) return void this.router.navigate(['/r', this.ruleset(), 'rulebook', 'attributes']);
      const entries = entriesOf(this.context.document(), this.chapter());
      // An entry that is just being renamed has its new id already; the address is about to follow.
      const here = untracked(() => this.context.id());
      if (entries.length === 0 || entries.some((e) => e.id === this.entry() || e.id === here)) return;
      const renamed = entries.find((e) => (e['formerly'] as readonly string[] | undefined)?.includes(this.entry() ?? ''));
      void this.go(this.chapter(), (renamed ?? entries[0]).id, true);
    });
  }

  /** Shows the pieces of a chapter's page; what they share goes with them when another chapter is opened. */
  private async show(page: ChapterPage): Promise<void> {
    // Sentences are written once it is known what can stand in them.
    const known = await this.descriptions.known().then(
      () => true,
      () => false,
    );
    if (this.chapter() !== page.key) return;
    if (!known) return this.say('This page could not be loaded. Load the workbench anew once the server can be reached.');
    const pieces = PAGE_PIECES[page.key];
    const before = this.pieces();
    // What stands beside several chapters of a tab stays as it is when another of them is opened.
    const stays = before?.beside !== undefined && before.beside.type === pieces.beside?.type && !pieces.providers;
    if (!stays) before?.injector.destroy();
    const injector = stays ? before.injector : Injector.create({ providers: [...(pieces.providers ?? [])], parent: this.injector });
    this.pieces.set({ ...pieces, chapter: page.key, injector });
  }

  /** What stands above the evidence; for several chapters of a tab the same, also while the next one is being loaded. */
  protected readonly beside = computed(() => {
    const shown = this.pieces();
    const fits = shown && (shown.chapter === this.chapter() || (tabOf(shown.chapter) === this.tab() && !shown.beside?.takesId));
    return fits ? shown.beside : undefined;
  });

  protected inputsOf({ inputs, takesId }: Piece, id: string): Record<string, unknown> {
    return { ...inputs, ...(takesId && { id }) };
  }

  private say(refusal: string, uses: readonly UseInWords[] = []): void {
    this.refusal.set(refusal);
    this.inUse.set(uses);
  }

  protected go(chapter: string, id: string, replaceUrl = false): Promise<boolean> {
    return this.router.navigate(['/r', this.ruleset(), 'rulebook', chapter, id], { replaceUrl });
  }

  protected async add(chapter: string): Promise<void> {
    const info = chapterOf(chapter)!;
    const label = `New ${info.one}`;
    let id = '';
    const [problem] = await this.editor.propose((document) => {
      const taken = entriesOf(document, chapter);
      id = freshId(
        label,
        taken.flatMap((entry) => [entry.id, ...((entry['formerly'] as readonly string[] | undefined) ?? [])]),
      );
      const entry = { id, label, ...info.fresh() };
      return chapter in document
        ? [{ op: 'add', path: `/${chapter}/-`, value: entry }]
        : [{ op: 'add', path: `/${chapter}`, value: [entry] }];
    }, `new ${info.one}`);
    if (problem) return this.say(problem.message);
    // What it is called comes first; the page that opens may be another one of this kind.
    await this.router.navigate(['/r', this.ruleset(), 'rulebook', chapter, id], { state: { naming: id } });
  }

  /** Deletes the entry; where it is in use the places are listed instead, and nothing happens. */
  protected async remove(): Promise<void> {
    const entry = this.current();
    if (!entry) return;
    const { id, label } = entry;
    const outcome = await this.deletion.remove(this.chapter(), id);
    if (outcome.uses)
      this.say(`${label} is used in ${outcome.uses.length === 1 ? 'one place' : `${outcome.uses.length} places`} and stays:`, outcome.uses);
    else if (outcome.problem) this.say(`${label} stays: ${outcome.problem}`);
  }

  /** A new label. An entry whose id still says its first label takes its id along. */
  protected async relabel(box: HTMLInputElement): Promise<void> {
    const label = box.value.trim();
    const [chapter, entry] = [this.chapter(), this.current()];
    if (!entry || label === '' || label === entry.label) return void (box.value = entry?.label ?? '');
    const fresh = /^New /.test(entry.label) && freshId(entry.label, []) === entry.id.replace(/\d+$/, '');
    const problems = await this.context.set('label', label);
    this.say(problems.map((p) => p.message).join(' '));
    if (!fresh || problems.length > 0) return;
    const others = (document: RulesetJson) => entriesOf(document, chapter).filter((other) => other.id !== entry.id);
    const taken = (document: RulesetJson) =>
      others(document).flatMap((other) => [other.id, ...((other['formerly'] as readonly string[] | undefined) ?? [])]);
    // Who plays meanwhile has something under its first id already.
    const played = this.openRoom.of(this.ruleset() ?? '') !== undefined;
    await this.renameTo(chapter, { ...entry, label }, (document) => freshId(label, taken(document)), played);
  }

  /** A new id, followed everywhere in one step. */
  protected readonly rename = async (to: string): Promise<boolean> => {
    const [chapter, entry] = [this.chapter(), this.current()];
    return entry !== undefined && (await this.renameTo(chapter, entry, () => to, true));
  };

  private async renameTo(
    chapter: string,
    { id: from, label }: EntryJson,
    named: (document: RulesetJson) => string,
    note: boolean,
  ): Promise<boolean> {
    let to = '';
    const problems = await this.editor.propose(async (document) => {
      to = named(document);
      return patchOf(await this.client.core.rename(document, chapter, from, to, note));
    }, `rename ${label}`);
    const told = problems.map((p) => p.message).join(' ');
    // Who waits may have gone on to another entry.
    if (this.chapter() !== chapter || this.context.id() !== from) return told === '';
    this.say(told);
    if (told !== '') return false;
    // The page goes on with the entry under its new id; the address follows.
    this.context.id.set(to);
    // Who is on the way to another page stays on it.
    if (this.router.currentNavigation() === null) await this.go(chapter, to, true);
    return true;
  }

  /** Moves the entry among those of its chapter; nothing refers to an entry by its place. */
  protected async move(by: number): Promise<void> {
    const label = this.current()?.label;
    const problems = await this.context.change(`move ${label}`, (base, document) => {
      const index = Number(base.split('/')[2]);
      const to = index + by;
      return to < 0 || to >= writtenIn(document, this.chapter()).length || this.given()
        ? []
        : [{ op: 'move', from: base, path: `/${this.chapter()}/${to}` }];
    });
    this.say(problems.map((p) => p.message).join(' '));
  }

  protected readonly files = computed(() => chapterOf(this.tab())?.files);
  /** Files of the very entries that this chapter has. */
  protected readonly ownFiles = computed(() => (this.files()?.of.concept === this.chapter() ? this.files() : undefined));

  protected async exchange(data: ExchangedFile): Promise<void> {
    const { FileExchange } = await import('./file-exchange');
    this.dialog.open(FileExchange, { data });
  }

  protected linked(chapter: string | undefined): boolean {
    return CHAPTERS.some(({ key }) => key === chapter);
  }
}

const NO_STATES = {};

const inIndex = ({ id, label, kind }: EntryJson) => ({ id, label, kind: typeof kind === 'string' ? kind : '' });
