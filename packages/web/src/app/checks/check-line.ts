import { computed, Directive, inject, input } from '@angular/core';
import { choice } from '../rulebook/spec/choices';
import { SpecFields } from '../rulebook/spec/spec-fields';
import { CheckResults, outcomeAt } from './check-results';
import type { PartFormat } from '../rulebook/spec/formats';
import { nameAmong, orRow, whoAmong } from './check-formats';

/** What every sentence of a check has at hand. */
@Directive()
export abstract class CheckLine extends SpecFields {
  /** Where the sentence stands below the check. */
  readonly at = input.required<string>();
  /** Whether it is the first of its kind: the others begin with “and”. */
  readonly first = input(false);
  private readonly results = inject(CheckResults);
  protected readonly names = computed(() => this.list<{ readonly name: string }>('given').map(({ name }) => name));
  protected readonly who = whoAmong(() => this.names(), 'everyone');
  protected readonly anyone = whoAmong(() => this.names(), 'anyone');
  protected readonly name = nameAmong(() => this.names());
  protected readonly nobody = nameAmong(() => this.names(), 'nobody');
  /** The part in an event that somebody plays. */
  protected readonly part = choice({ subject: 'to', source: 'by', target: 'aimed at' });
  /** The columns of the check's table, where it has one. */
  private readonly columns = computed(
    () => (this.context.value('each') as { readonly columns?: readonly string[] } | undefined)?.columns ?? [],
  );
  protected readonly value = computed(() => (this.context.value(this.at()) ?? {}) as Readonly<Record<string, unknown>>);

  /** Whether something is wrong with it. */
  protected readonly broken = computed(() => {
    const result = this.results.result(this.context.id());
    const mistaken = result?.mistakes.some(({ path }) => path === this.at() || path.startsWith(`${this.at()}/`));
    return mistaken === true || outcomeAt(result, this.at())?.holds === false;
  });

  /** As a format, or as what a row of the table has. */
  protected orRow(format: PartFormat): PartFormat {
    return orRow(format, () => this.columns());
  }

  /** Takes the sentence out of its list. */
  protected drop(): void {
    const cut = this.at().lastIndexOf('/');
    void this.removeFrom(this.at().slice(0, cut), Number(this.at().slice(cut + 1)), true);
  }

  /** Moves the sentence up or down in its list. */
  protected move(event: Event, by: number): void {
    event.preventDefault();
    event.stopPropagation();
    const cut = this.at().lastIndexOf('/');
    const index = Number(this.at().slice(cut + 1));
    const list = this.at().slice(0, cut);
    if (index + by >= 0 && index + by < this.list(list).length) void this.swap(list, index, by);
  }
}
