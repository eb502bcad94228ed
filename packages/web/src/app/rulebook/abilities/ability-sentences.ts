import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { entriesOf } from '../chapters';
import { Carriers } from '../spec/carriers';
import { type Clause, Clauses } from '../spec/clauses';
import { amount, entry, timeAmount } from '../spec/formats';
import { Note, NOTE } from '../spec/note';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecContext } from '../spec/spec-context';
import { ThenList } from '../spec/then-list';

/** An ability in sentences. */
@Component({
  selector: 'ee-ability-sentences',
  imports: [Part, Sentence, Clauses, ThenList, Carriers, Note],
  template: `
    <ee-sentence>Done at once@if (cools()) {, then ready again after <ee-part at="cooldown" [format]="timeAmount" label="cooldown" empty="no time" />}.</ee-sentence>
    @for (cost of costs(); track $index) {
      <ee-sentence clause="cost" (removed)="removeCost($index)">
        Costs <ee-part [at]="'costs/' + $index + '/amount'" [format]="amount" label="amount" />&ngsp;<ee-part [at]="'costs/' + $index + '/attribute'" [format]="paid" label="what it costs" />.
      </ee-sentence>
    }
    <ee-sentence>When it is used:</ee-sentence>
    <ee-then at="then" />
    <ee-note />
    <ee-clauses [all]="clauses">
      @if (payable().length > 0) {
        <button type="button" class="chip" (click)="addCost()">cost</button>
      }
    </ee-clauses>
    <ee-carriers />
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AbilitySentences {
  private readonly context = inject(SpecContext);
  protected readonly amount = amount;
  protected readonly timeAmount = timeAmount;
  protected readonly paid = entry('attributes', (e) => e['kind'] !== 'stat');
  protected readonly cools = computed(() => this.context.value('cooldown') !== undefined);
  protected readonly costs = computed(() => (this.context.value('costs') as readonly unknown[] | undefined) ?? []);
  protected readonly payable = computed(() => entriesOf(this.context.document(), 'attributes').filter((e) => e['kind'] !== 'stat'));
  protected readonly clauses: readonly Clause[] = [{ at: 'cooldown', name: 'cooldown', begins: '5s' }, NOTE];

  protected addCost(): void {
    void this.context.set('costs', [...this.costs(), { attribute: this.payable()[0].id, amount: 10 }]);
  }

  protected removeCost(index: number): void {
    void this.context.set(
      'costs',
      this.costs().filter((_, i) => i !== index),
    );
  }
}
