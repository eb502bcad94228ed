import { computed, Directive, inject, signal } from '@angular/core';
import type { Problem } from '@eager-ember/core';
import type { Operation } from 'fast-json-patch';
import type { RulesetJson } from '../../shared/api';
import { writtenIn } from '../chapters';
import { SpecContext } from './spec-context';

/** What every spec in sentences does with the fields and lists of its entry. */
@Directive()
export abstract class SpecFields {
  protected readonly context = inject(SpecContext);
  /** What is wrong with what was last asked for, where it belongs to no single part. */
  protected readonly refusal = signal('');
  protected readonly entry = computed(() => this.context.entry());

  protected has(at: string): boolean {
    return this.context.value(at) !== undefined;
  }

  protected list<T = Readonly<Record<string, unknown>>>(at: string): readonly T[] {
    return (this.context.value(at) as readonly T[] | undefined) ?? [];
  }

  /** Adds one at the end of a list, as the list is by then. */
  protected async add(at: string, begins: unknown): Promise<void> {
    this.told(
      await this.context.change(this.edited(at), (base, document) => {
        const list = this.listIn(document, base, at);
        return [list ? { op: 'add', path: `${base}/${at}/-`, value: begins } : { op: 'add', path: `${base}/${at}`, value: [begins] }];
      }),
    );
  }

  /**
   * Takes one out of a list: the one that is meant now, wherever it stands once edits before this one are through. A list
   * that may be left out goes with its last.
   */
  protected async removeFrom(at: string, index: number, keeps = false): Promise<void> {
    const meant = JSON.stringify(this.list(at)[index]);
    this.told(
      await this.context.change(this.edited(at), (base, document) => {
        const list = this.listIn(document, base, at) ?? [];
        const here = JSON.stringify(list[index]) === meant ? index : list.findIndex((one) => JSON.stringify(one) === meant);
        if (here < 0) return [];
        return [{ op: 'remove', path: list.length === 1 && !keeps ? `${base}/${at}` : `${base}/${at}/${here}` }];
      }),
    );
  }

  private edited(at: string): string {
    return `${this.context.entry()?.label ?? ''}: ${at.replace(/\//g, ' ')}`;
  }

  /** A list as it stands in a document; as it is shown, where its entry is only about to be written. */
  private listIn(document: RulesetJson, base: string, at: string): readonly unknown[] | undefined {
    const [, chapter, index] = base.split('/');
    const entry = writtenIn(document, chapter)[Number(index)] as unknown;
    if (entry === undefined) return this.context.value(at) as readonly unknown[] | undefined;
    return at.split('/').reduce<unknown>((value, key) => (value as Record<string, unknown> | undefined)?.[key], entry) as
      readonly unknown[] | undefined;
  }

  private told(problems: readonly Problem[]): void {
    this.refusal.set(problems.map((problem) => problem.message).join(' '));
  }

  protected swap(at: string, index: number, by: number): Promise<void> {
    const list = [...this.list(at)];
    const to = index + by;
    if (to < 0 || to >= list.length) return Promise.resolve();
    list.splice(to, 0, ...list.splice(index, 1));
    return this.put(at, list);
  }

  protected async put(at: string, value: unknown): Promise<void> {
    this.told(await this.context.set(at, value));
  }

  /** Several fields in one step; one that is undefined is taken out. */
  protected async putAll(fields: Readonly<Record<string, unknown>>): Promise<void> {
    const problems = await this.context.change(`${this.context.entry()?.label}: ${Object.keys(fields).join(', ')}`, (base) =>
      Object.entries(fields).flatMap(([field, value]): Operation[] => {
        if (value === undefined) return this.has(field) ? [{ op: 'remove', path: `${base}/${field}` }] : [];
        return [{ op: 'add', path: `${base}/${field}`, value }];
      }),
    );
    this.refusal.set(problems.map((problem) => problem.message).join(' '));
  }
}
