import { computed, Directive, inject, signal } from '@angular/core';
import type { Operation } from 'fast-json-patch';
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

  protected add(at: string, begins: unknown): Promise<void> {
    return this.put(at, [...this.list(at), begins]);
  }

  /** Takes one out of a list; a list that may be left out goes with its last. */
  protected removeFrom(at: string, index: number, keeps = false): Promise<void> {
    const rest = this.list(at).filter((_, i) => i !== index);
    return this.put(at, rest.length > 0 || keeps ? rest : undefined);
  }

  protected swap(at: string, index: number, by: number): Promise<void> {
    const list = [...this.list(at)];
    const to = index + by;
    if (to < 0 || to >= list.length) return Promise.resolve();
    list.splice(to, 0, ...list.splice(index, 1));
    return this.put(at, list);
  }

  protected async put(at: string, value: unknown): Promise<void> {
    const problems = await this.context.set(at, value);
    this.refusal.set(problems.map((problem) => problem.message).join(' '));
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
