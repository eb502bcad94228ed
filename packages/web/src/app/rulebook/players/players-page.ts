import type { HttpErrorResponse } from '@angular/common/http';
import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import type { SavedValue, SavedPlayer } from '@eager-ember/core';
import { firstValueFrom } from 'rxjs';
import { Api, failureOf, type PlayerInfo, type SetAsideInfo, type StoredPlayer } from '../../shared/api';
import { CoreClient } from '../../shared/core-client';
import { download } from '../../shared/download';
import { documentFeature } from '../../store/document.reducer';
import { ChapterTabs } from '../chapter-tabs';

const NAME = /^[A-Za-z][A-Za-z0-9 _-]{0,23}$/;

/** All that is kept of saved players: a sheet for each, to be read, put right, reset in part, and carried elsewhere as JSON. */
@Component({
  selector: 'ee-players-page',
  imports: [ChapterTabs, DatePipe, RouterLink],
  templateUrl: './players-page.html',
  styleUrl: './players-page.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlayersPage {
  /** The player that is open, from the address. */
  readonly player = input<string>();
  private readonly api = inject(Api);
  private readonly client = inject(CoreClient);
  private readonly router = inject(Router);
  protected readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
  protected readonly revision = inject(Store).selectSignal(documentFeature.selectRevision);
  protected readonly list = signal<readonly PlayerInfo[] | undefined>(undefined);
  protected readonly all = signal(0);
  /** Whose players are in the list. */
  private listed: string | undefined;
  /** Where the part of the list begins that is not shown yet. */
  protected readonly next = signal<string | null>(null);
  protected readonly aside = signal<readonly SetAsideInfo[]>([]);
  protected readonly open = signal<StoredPlayer | undefined>(undefined);
  /** What is wrong, and with which value where it is one. */
  protected readonly refusal = signal<readonly string[]>([]);
  protected readonly done = signal('');
  /** Values that are as everybody begins are left out. */
  protected readonly everything = signal(false);
  /** What was there before each change of this page. */
  private readonly before = signal<readonly { readonly name: string; readonly saved: SavedPlayer; readonly what: string }[]>([]);
  protected readonly last = computed(() => this.before().findLast(({ name }) => name === this.open()?.name));
  protected readonly room = computed(() => this.list()?.find(({ name }) => name === this.open()?.name)?.room);

  protected readonly parts = computed(() =>
    (this.open()?.sheet.parts ?? [])
      .map((part) => ({ ...part, values: part.values.filter((one) => this.everything() || this.says(one)), all: part.values.length }))
      .map((part) => ({ ...part, hidden: part.all - part.values.length })),
  );

  constructor() {
    effect(() => {
      const [ruleset, name] = [this.ruleset(), this.player()];
      // What an edit of the rules has changed of players is read anew.
      this.revision();
      if (ruleset !== undefined) untracked(() => void this.read(ruleset, name));
    });
  }

  private says({ value, range }: SavedValue): boolean {
    return value !== 0 && value !== '' && !(range?.[0] === 1 && value === 1);
  }

  private async read(ruleset: string, name: string | undefined): Promise<void> {
    try {
      const { items, next, all, aside } = await firstValueFrom(this.api.players(ruleset));
      // What was shown beyond the first part stays so.
      const [last] = items.slice(-1);
      const further = last === undefined || this.listed !== ruleset ? [] : (this.list() ?? []).filter((one) => one.name > last.name);
      this.listed = ruleset;
      this.list.set([...items, ...further]);
      if (further.length === 0) this.next.set(next);
      this.all.set(all);
      this.aside.set(aside);
      const wanted = name ?? items[0]?.name;
      this.open.set(wanted === undefined ? undefined : await firstValueFrom(this.api.player(ruleset, wanted)));
    } catch (error) {
      this.open.set(undefined);
      this.tell(error as HttpErrorResponse);
    }
  }

  /** Shows the next part of the list. */
  protected async more(): Promise<void> {
    try {
      const { items, next } = await firstValueFrom(this.api.players(this.ruleset()!, this.next()));
      this.list.update((list) => [...(list ?? []), ...items]);
      this.next.set(next);
    } catch (error) {
      this.tell(error as HttpErrorResponse);
    }
  }

  private tell(error: HttpErrorResponse): void {
    const { title, detail, problems } = failureOf(error);
    this.done.set('');
    this.refusal.set(problems.length > 0 ? [`${title}.`, ...problems.map(({ message }) => message)] : [`${title}. ${detail}`]);
  }

  /** Keeps something else of the open player: all of it or nothing. */
  private async keep(saved: SavedPlayer, what: string): Promise<boolean> {
    const now = this.open()!;
    try {
      await firstValueFrom(this.api.keepPlayer(this.ruleset()!, now.name, saved, now.etag));
    } catch (error) {
      this.tell(error as HttpErrorResponse);
      return false;
    }
    this.before.update((list) => [...list, { name: now.name, saved: now.saved, what }].slice(-50));
    this.refusal.set([]);
    this.done.set(what);
    await this.read(this.ruleset()!, now.name);
    return true;
  }

  protected async change(one: SavedValue, field: HTMLInputElement | HTMLSelectElement): Promise<void> {
    const value = Number(field.value);
    const { saved } = this.open()!;
    if (field.value.trim() === '' || !Number.isFinite(value)) this.refusal.set([`${one.label}: a number is expected.`]);
    else if (value === one.value) return;
    else if (await this.keep({ ...saved, [one.table]: { ...saved[one.table], [one.column]: value } }, `${one.label}: ${field.value}`))
      return;
    field.value = String(one.value);
  }

  protected reset(table: string, title: string): void {
    const { [table]: _gone, ...rest } = this.open()!.saved;
    void this.keep(rest, `${title} reset`);
  }

  protected async undo(): Promise<void> {
    const last = this.last();
    if (!last) return;
    const without = this.before().filter((one) => one !== last);
    if (await this.keep(last.saved, `taken back: ${last.what}`)) this.before.set(without);
  }

  protected save(): void {
    const { name, saved, revision } = this.open()!;
    download(`${name}.json`, new Blob([`${JSON.stringify({ name, revision, saved }, null, 2)}\n`], { type: 'application/json' }));
  }

  /** Brings a player in from a file: under the name that stands in it, over who is there of that name. */
  protected async bring(field: HTMLInputElement): Promise<void> {
    const file = field.files?.[0];
    if (!file) return;
    const text = await file.text();
    field.value = '';
    let read: { name?: unknown; saved?: unknown };
    try {
      read = JSON.parse(text) as typeof read;
    } catch {
      const [problem] = await this.client.core.checkText(text);
      return this.refusal.set([`${file.name}: ${problem.message}`]);
    }
    if (typeof read?.name !== 'string' || !NAME.test(read.name) || read.saved === undefined)
      return this.refusal.set([`${file.name} holds no player: { "name": …, "saved": … } is expected, as it is saved here.`]);
    const { name } = read;
    const there = this.list()?.some((one) => one.name === name);
    try {
      const etag = there ? (await firstValueFrom(this.api.player(this.ruleset()!, name))).etag : undefined;
      await firstValueFrom(this.api.keepPlayer(this.ruleset()!, name, read.saved, etag));
    } catch (error) {
      return this.tell(error as HttpErrorResponse);
    }
    this.refusal.set([]);
    this.done.set(`${name} is here`);
    await this.show(name);
  }

  private async show(name: string | undefined): Promise<void> {
    if (name !== this.player())
      await this.router.navigate(['/r', this.ruleset(), 'rulebook', 'players', ...(name === undefined ? [] : [name])]);
    await this.read(this.ruleset()!, name);
  }

  protected async remove(): Promise<void> {
    const { name } = this.open()!;
    try {
      await firstValueFrom(this.api.deletePlayer(this.ruleset()!, name));
    } catch (error) {
      return this.tell(error as HttpErrorResponse);
    }
    this.done.set(`${name} is deleted`);
    this.list.update((list) => list?.filter((one) => one.name !== name));
    await this.show(undefined);
  }

  protected saveAside({ name, saved }: SetAsideInfo): void {
    download(`${name}-set-aside.json`, new Blob([`${JSON.stringify({ name, saved }, null, 2)}\n`], { type: 'application/json' }));
  }

  protected async dropAside({ id }: SetAsideInfo): Promise<void> {
    try {
      await firstValueFrom(this.api.deleteAside(this.ruleset()!, id));
    } catch (error) {
      return this.tell(error as HttpErrorResponse);
    }
    await this.read(this.ruleset()!, this.open()?.name);
  }
}
