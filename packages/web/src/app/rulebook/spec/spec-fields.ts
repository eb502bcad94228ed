import { computed, Directive, inject, signal } from '@angular/core';
import type { Problem } from '@eager-ember/core';
import type { Operation } from 'fast-json-patch';
import type { RulesetJson } from '../../shared/api';
import { writtenIn } from '../chapters';
import { type Revision, SpecContext } from './spec-context';

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

  /** Adds one at the end of a list, as the list is by then. What it begins as may go by those that are there. */
  protected async add<T>(at: string, begins: T | ((list: readonly T[]) => T)): Promise<void> {
    this.told(
      await this.context.change(this.edited(at), (base, document) => {
        const list = this.listIn(document, base, at) as readonly T[] | undefined;
        const value = typeof begins === 'function' ? (begins as (list: readonly T[]) => T)(list ?? []) : begins;
        return [list ? { op: 'add', path: `${base}/${at}/-`, value } : { op: 'add', path: `${base}/${at}`, value: [value] }];
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

  protected told(problems: readonly Problem[]): void {
    this.refusal.set(problems.map((problem) => problem.message).join(' '));
  }

  protected async swap(at: string, index: number, by: number): Promise<void> {
    const meant = JSON.stringify(this.list(at)[index]);
    this.told(
      await this.context.revise(at, (now) => {
        const list = [...(now as readonly unknown[])];
        const to = index + by;
        if (JSON.stringify(list[index]) !== meant || to < 0 || to >= list.length) return now;
        list.splice(to, 0, ...list.splice(index, 1));
        return list;
      }),
    );
  }

  protected async put(at: string, value: unknown): Promise<void> {
    this.told(await this.context.set(at, value));
  }

  /** Makes a field's value from the one that is there by then. */
  protected async revise<T>(at: string, make: (now: T) => unknown): Promise<void> {
    this.told(await this.context.revise(at, make as Revision));
  }

  /** Several fields in one step; one that is undefined is taken out. */
  protected async putAll(fields: Readonly<Record<string, unknown>>): Promise<void> {
    const problems = await this.context.change(`${this.context.entry()?.label}: ${Object.keys(fields).join(', ')}`, (base) =>
      Object.entries(fields).flatMap(([field, value]): Operation[] => {
        if (value === undefined) return this.has(field) ? [{ op: 'remove', path: `${base}/${field}` }] : [];
        return [{ op: 'add', path: `${base}/${field}`, value }];
      }),
    );
    this.told(problems);
  }
}
