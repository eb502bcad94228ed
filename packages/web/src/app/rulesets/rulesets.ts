import { DatePipe } from '@angular/common';
import type { HttpErrorResponse } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { firstValueFrom } from 'rxjs';
import { Store } from '@ngrx/store';
import { Api, type Failure, failureOf, type RulesetJson, type RulesetSummary, type StoredRuleset } from '../shared/api';
import { CoreClient } from '../shared/core-client';
import { Theme } from '../shared/theme';
import { documentActions } from '../store/document.reducer';

const NAMES: Readonly<Record<string, [string, string]>> = {
  attributes: ['stat', 'stats'],
  effects: ['effect', 'effects'],
  abilities: ['ability', 'abilities'],
  actors: ['actor', 'actors'],
  pickups: ['pickup', 'pickups'],
  teams: ['team', 'teams'],
};

/** All rulesets of this workbench; a new one from nothing or from a file. */
@Component({
  selector: 'ee-rulesets',
  imports: [RouterLink, DatePipe],
  templateUrl: './rulesets.html',
  styleUrl: './rulesets.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Rulesets {
  private readonly api = inject(Api);
  private readonly client = inject(CoreClient);
  private readonly router = inject(Router);
  private readonly store = inject(Store);
  protected readonly theme = inject(Theme);
  protected readonly rulesets = signal<readonly RulesetSummary[] | undefined>(undefined);
  /** Where the part of the list begins that is not shown yet. */
  protected readonly next = signal<string | null>(null);
  protected readonly failure = signal<Failure | undefined>(undefined);
  protected readonly problems = signal<readonly { path: string; message: string }[]>([]);
  protected readonly fileName = signal('');
  /** What is being done with a ruleset that is to be opened, in words. */
  protected readonly doing = signal('');

  constructor() {
    void this.load();
    // Whatever is opened from here is asked of the core: it is started while one looks at the list.
    void this.client.core.sections().catch(() => undefined);
  }

  protected async load(): Promise<void> {
    try {
      const { items, next } = await firstValueFrom(this.api.rulesets(this.next()));
      this.rulesets.update((before) => [...(before ?? []), ...items]);
      this.next.set(next);
      this.failure.set(undefined);
    } catch (error) {
      this.failure.set(failureOf(error as HttpErrorResponse));
    }
  }

  protected contents(ruleset: RulesetSummary): string {
    const parts = Object.entries(NAMES).flatMap(([key, [one, many]]) => {
      const count = ruleset.entries[key] ?? 0;
      return count === 0 ? [] : [`${count} ${count === 1 ? one : many}`];
    });
    return parts.length > 0 ? parts.join(', ') : 'empty';
  }

  protected async create(name: string): Promise<void> {
    await this.open(() => firstValueFrom(this.api.create({ name: name.trim() || 'New ruleset' })));
  }

  /** Takes a file in, or lists all that is wrong with it and takes nothing. */
  protected async importFile(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    input.value = '';
    if (!file) return;
    this.fileName.set(file.name);
    this.problems.set([]);
    this.doing.set(`Reading ${file.name} …`);
    const text = await file.text();
    const { value, problems } = await this.client.core.readText(text);
    if (problems.length > 0) this.problems.set(value === undefined ? problems : await this.client.core.checkText(text));
    this.doing.set('');
    if (problems.length > 0) return;
    // What it says is checked by the server: it takes nothing that is not sound, and lists all that is wrong. Meanwhile it is read
    // here as well, so that its pages are there as soon as it is stored.
    const document = value as RulesetJson;
    void this.client.core.check(document).catch(() => undefined);
    void Promise.all([import('../shell/workbench'), import('../rulebook/rulebook')]).catch(() => undefined);
    await this.open(async () => {
      const stored = await firstValueFrom(this.api.create({ document }));
      return stored.document?.version === document.version ? { ...stored, document } : stored;
    });
  }

  private async open(make: () => Promise<StoredRuleset>): Promise<void> {
    this.doing.set('Checking and storing it …');
    try {
      const { id, document, revision } = await make();
      this.doing.set('Opening it …');
      this.store.dispatch(documentActions.opened({ id, document, revision }));
      await this.router.navigate(['/r', id]);
    } catch (error) {
      const failure = failureOf(error as HttpErrorResponse);
      this.problems.set(failure.problems.length > 0 ? failure.problems : [{ path: '', message: `${failure.title}. ${failure.detail}` }]);
    } finally {
      this.doing.set('');
    }
  }
}
