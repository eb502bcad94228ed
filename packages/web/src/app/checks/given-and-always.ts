import { computed, Directive } from '@angular/core';
import { entriesOf } from '../rulebook/entries';
import { SpecFields } from '../rulebook/spec/spec-fields';

/** Names for those who are given, in their order. */
const NAMES = ['north', 'south', 'east', 'west', 'first', 'second', 'third', 'fourth'];

/** What checks and hunts have in common: who is given, and what always has to hold. */
@Directive()
export abstract class GivenAndAlways extends SpecFields {
  protected readonly given = computed(() => this.list('given'));
  protected readonly always = computed(() => this.list('always'));
  protected readonly names = computed(() => this.list<{ readonly name: string }>('given').map(({ name }) => name));

  /** Somebody to speak of: the first who is given. */
  protected someone(): string {
    return this.names()[0] ?? NAMES[0];
  }

  protected attribute(): string {
    const [given] = this.list<{ readonly with?: readonly { readonly attribute: string }[] }>('given');
    return (given?.with ?? [])[0]?.attribute ?? entriesOf(this.context.document(), 'attributes')[0]?.id ?? 'health';
  }

  /** A name that nobody has yet. */
  protected newName(): string {
    return NAMES.find((one) => !this.names().includes(one)) ?? `one${this.names().length + 1}`;
  }

  protected addGiven(): void {
    void this.add('given', { name: this.newName() });
  }

  protected addAlways(value: boolean): void {
    const attribute = this.attribute();
    void this.add('always', value ? { value: attribute, how: 'atLeast', amount: 0 } : { that: `${attribute} >= 0` });
  }

  protected addConserved(): void {
    const money = (this.context.document()?.['economy'] as { readonly currency?: string } | undefined)?.currency;
    void this.add('always', { conserved: money ?? this.attribute(), sources: [], sinks: [] });
  }

  protected addNotTold(): void {
    void this.add('always', { seat: this.someone(), knows: this.attribute(), of: this.names()[1] ?? this.someone(), not: true });
  }

  protected addInvariant(): void {
    void this.add('always', { invariant: 'bounds' });
  }
}
