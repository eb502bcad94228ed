import { computed, Directive, inject, signal } from '@angular/core';
import type { Problem } from '@eager-ember/core';
import type { Operation } from 'fast-json-patch';
import { freshId } from '../entries';
import type { Way } from './choose';
import { meantPath } from './meant-path';
import { type Revision, SpecContext } from './spec-context';

/** What every spec in sentences does with the fields and lists of its entry. */
@Directive()
export abstract class SpecFields {
  protected readonly context = inject(SpecContext);
  /** What is wrong with what was last asked for, where it belongs to no single part. */
  protected readonly refusal = signal('');
  protected readonly entry = computed(() => this.context.entry());

  /** The words that can stand in a place, for a list of them. */
  protected options(at: string): readonly Way[] {
    return this.context.options(at);
  }

  protected has(at: string): boolean {
    return this.context.value(at) !== undefined;
  }

  protected list<T = Readonly<Record<string, unknown>>>(at: string): readonly T[] {
    return (this.context.value(at) as readonly T[] | undefined) ?? [];
  }

  /** Adds one at the end of a list, as the list is by then. What it begins as may go by those that are there. */
  protected async add<T>(at: string, begins: T | ((list: readonly T[]) => T)): Promise<void> {
    this.told(
      await this.context.changeAt(at, (path, now) => {
        const list = now as readonly T[] | undefined;
        const value = typeof begins === 'function' ? (begins as (list: readonly T[]) => T)(list ?? []) : begins;
        return [list ? { op: 'add', path: `${path}/-`, value } : { op: 'add', path, value: [value] }];
      }),
    );
  }

  /** Adds one that goes by an id of its own among them, made of a word, and tells that id. */
  protected async addNamed(at: string, word: string, begins: object): Promise<string> {
    let id = '';
    await this.add<{ readonly id: string }>(at, (list) => {
      id = freshId(
        word,
        list.map((one) => one.id),
      );
      return { id, ...begins };
    });
    return id;
  }

  /** Takes out of a list the one that is meant now. A list that may be left out goes with its last. */
  protected async removeFrom(at: string, index: number, keeps = false): Promise<void> {
    const [list, one] = [this.list(at), JSON.stringify(this.list(at)[index])];
    const place = meantPath(list, String(index));
    this.told(
      await this.context.changeAt(at, (path, now) => {
        const left = (now as readonly unknown[] | undefined) ?? [];
        const here = place(left);
        // What has no id and is not the same any more is something else, or gone.
        if (here === undefined || (nameless(left[Number(here)]) && JSON.stringify(left[Number(here)]) !== one)) return [];
        return [{ op: 'remove', path: left.length === 1 && !keeps ? path : `${path}/${here}` }];
      }),
    );
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

const nameless = (one: unknown) => typeof (one as { readonly id?: unknown } | undefined)?.id !== 'string';
