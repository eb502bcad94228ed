import { DatePipe } from '@angular/common';
import type { HttpErrorResponse } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { firstValueFrom } from 'rxjs';
import { Api, type Failure, failureOf, type RulesetJson, type RulesetSummary } from '../shared/api';
import { CoreClient } from '../shared/core-client';
import { Theme } from '../shared/theme';

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
  protected readonly theme = inject(Theme);
  protected readonly rulesets = signal<readonly RulesetSummary[] | undefined>(undefined);
  /** Where the part of the list begins that is not shown yet. */
  protected readonly next = signal<string | null>(null);
  protected readonly failure = signal<Failure | undefined>(undefined);
  protected readonly problems = signal<readonly { path: string; message: string }[]>([]);
  protected readonly fileName = signal('');

  constructor() {
    void this.load();
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
    const text = await file.text();
    const problems = await this.client.core.checkText(text);
    if (problems.length > 0) return this.problems.set(problems);
    await this.open(() => firstValueFrom(this.api.create({ document: JSON.parse(text) as RulesetJson })));
  }

  private async open(make: () => Promise<{ id: string }>): Promise<void> {
    try {
      const { id } = await make();
      await this.router.navigate(['/r', id]);
    } catch (error) {
      const failure = failureOf(error as HttpErrorResponse);
      this.problems.set(failure.problems.length > 0 ? failure.problems : [{ path: '', message: `${failure.title}. ${failure.detail}` }]);
    }
  }
}
