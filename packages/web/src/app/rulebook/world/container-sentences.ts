import { ChangeDetectionStrategy, Component } from '@angular/core';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { ThenList } from '../spec/then-list';
import { OfferFields } from './offer-fields';
import { Note, NOTE } from '../spec/note';
import { type Clause, Clauses } from '../spec/clauses';
import { entriesOf } from '../entries';
import { Carriers } from '../spec/carriers';

/** A container in sentences. */
@Component({
  selector: 'ee-container-sentences',
  imports: [Part, Sentence, Clauses, Note, ThenList, Carriers],
  templateUrl: './container-sentences.html',
  styleUrl: './world.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ContainerSentences extends OfferFields {
  protected readonly clauses: readonly Clause[] = [{ at: 'refills', name: 'filled anew', begins: '60s' }, NOTE];

  protected addLoot(): void {
    const [first] = entriesOf(this.context.document(), 'loot');
    if (!first) return this.refusal.set('There is no loot table yet: begin one under Loot.');
    void this.put('loot', first.id);
  }

  protected addThing(gives: boolean): void {
    const label = gives ? 'Something' : 'A surprise';
    const attribute = entriesOf(this.context.document(), 'attributes').find(({ kind }) => kind !== 'stat')?.id;
    const what = gives && attribute ? { gives: attribute, amount: 1 } : { then: [{ do: 'flourish', text: 'Found' }] };
    void this.addNamed('holds', label, { label, ...what });
  }
}
