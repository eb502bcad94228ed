import { ChangeDetectionStrategy, Component } from '@angular/core';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecFields } from '../spec/spec-fields';
import { ThenList } from '../spec/then-list';
import { Note, NOTE } from '../spec/note';
import { type Clause, Clauses } from '../spec/clauses';
import { PlacedAt } from './placed';

/** A pickup in sentences. */
@Component({
  selector: 'ee-pickup-sentences',
  imports: [Part, Sentence, Clauses, Note, ThenList, PlacedAt],
  templateUrl: './pickup-sentences.html',
  styleUrl: './world.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PickupSentences extends SpecFields {
  protected readonly clauses: readonly Clause[] = [
    { at: 'refusal', name: 'words for whom it is not', begins: 'This is not for you.', fits: (e) => e['who'] !== undefined },
    {
      at: 'drawn',
      name: 'when its luck is drawn',
      begins: 'taking',
      fits: (e) => /"(random|among)":/.test(JSON.stringify(e['then'] ?? [])),
    },
    { at: 'lasts', name: 'gone unclaimed', begins: '12s' },
    { at: 'returns', name: 'comes back', begins: '15s' },
    NOTE,
  ];
}
