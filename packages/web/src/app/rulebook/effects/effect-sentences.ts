import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { entriesOf } from '../chapters';
import { SEEN_BY } from '../attributes/attribute-sentences';
import { type Clause, Clauses } from '../spec/clauses';
import { amount, choice, duration, entry } from '../spec/formats';
import { Note, NOTE } from '../spec/note';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecContext } from '../spec/spec-context';

interface Modifier {
  readonly attribute: string;
  readonly operation: string;
  readonly amount: unknown;
}

/** An effect in sentences. */
@Component({
  selector: 'ee-effect-sentences',
  imports: [Part, Sentence, Clauses, Note],
  template: `
    <ee-sentence>Lasts <ee-part at="lasts" [format]="duration" label="how long it lasts" />. Two of it each end on their own clock.</ee-sentence>
    @for (modifier of modifiers(); track $index) {
      <ee-sentence clause="modifier" (removed)="remove('modifiers', $index)">
        While it lasts, <ee-part [at]="'modifiers/' + $index + '/attribute'" [format]="stat" label="stat" />&ngsp;
        <ee-part [at]="'modifiers/' + $index + '/operation'" [format]="operations" label="operation" />&ngsp;
        <ee-part [at]="'modifiers/' + $index + '/amount'" [format]="amount" label="amount" />{{ modifier.operation === 'percent' ? ' %' : '' }}.
      </ee-sentence>
    }
    @for (status of grants(); track $index) {
      <ee-sentence clause="status" (removed)="remove('grants', $index)">Its bearer is <ee-part [at]="'grants/' + $index" [format]="status_" label="status" />.</ee-sentence>
    }
    <ee-sentence>Seen by <ee-part at="see" [format]="seen" label="seen by" empty="everyone" />.</ee-sentence>
    <ee-note />
    <ee-clauses [all]="clauses">
      @if (stats().length > 0) {
        <button type="button" class="chip" (click)="addModifier()">modifier</button>
      }
      @if (statuses().length > 0) {
        <button type="button" class="chip" (click)="addGrant()">status</button>
      }
    </ee-clauses>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EffectSentences {
  private readonly context = inject(SpecContext);
  protected readonly amount = amount;
  protected readonly duration = duration;
  protected readonly seen = choice(SEEN_BY);
  protected readonly operations = choice({ add: 'gains', percent: 'changes by', times: 'is multiplied by' });
  protected readonly stat = entry('attributes', (e) => e['kind'] === 'stat');
  protected readonly status_ = entry('statuses');
  protected readonly modifiers = computed(() => (this.context.value('modifiers') as readonly Modifier[] | undefined) ?? []);
  protected readonly grants = computed(() => (this.context.value('grants') as readonly string[] | undefined) ?? []);
  protected readonly stats = computed(() => entriesOf(this.context.document(), 'attributes').filter((e) => e['kind'] === 'stat'));
  protected readonly statuses = computed(() => entriesOf(this.context.document(), 'statuses'));
  protected readonly clauses: readonly Clause[] = [NOTE];

  protected addModifier(): void {
    void this.context.set('modifiers', [...this.modifiers(), { attribute: this.stats()[0].id, operation: 'percent', amount: 10 }]);
  }

  protected addGrant(): void {
    void this.context.set('grants', [...this.grants(), this.statuses()[0].id]);
  }

  protected remove(list: 'modifiers' | 'grants', index: number): void {
    void this.context.set(
      list,
      (this.context.value(list) as readonly unknown[]).filter((_, i) => i !== index),
    );
  }
}
