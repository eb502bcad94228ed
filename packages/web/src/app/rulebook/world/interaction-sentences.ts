import { ChangeDetectionStrategy, Component } from '@angular/core';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { ThenList } from '../spec/then-list';
import { OfferFields } from './offer-fields';
import { Note, NOTE } from '../spec/note';
import { type Clause, Clauses } from '../spec/clauses';
import { entriesOf } from '../entries';
import { Carriers } from '../spec/carriers';

/** An interaction in sentences. */
@Component({
  selector: 'ee-interaction-sentences',
  imports: [Part, Sentence, Clauses, Note, ThenList, Carriers],
  templateUrl: './interaction-sentences.html',
  styleUrl: './world.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class InteractionSentences extends OfferFields {
  protected readonly clauses: readonly Clause[] = [
    {
      at: 'price',
      name: 'price',
      begins: { attribute: this.firstPaid(), amount: 10 },
      fits: () => this.firstPaid() !== undefined,
    },
    { at: 'price/say', name: 'words for who is too poor', begins: 'You can’t pay this.', fits: (e) => e['price'] !== undefined },
    { at: 'busy', name: 'takes a time', begins: '5s' },
    { at: 'onBreak', name: 'when it ends before its time', begins: [] },
    { at: 'refund', name: 'gives back', begins: 1, fits: (e) => e['price'] !== undefined },
    { at: 'remembers', name: 'not again', begins: { for: '60s' } },
    NOTE,
  ];

  private firstPaid(): string | undefined {
    return entriesOf(this.context.document(), 'attributes').find(({ kind }) => kind !== 'stat')?.id;
  }
}
