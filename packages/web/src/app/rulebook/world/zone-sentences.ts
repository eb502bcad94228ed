import { ChangeDetectionStrategy, Component } from '@angular/core';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecFields } from '../spec/spec-fields';
import { ThenList } from '../spec/then-list';
import { Note, NOTE } from '../spec/note';
import { type Clause, Clauses } from '../spec/clauses';
import { PlacedAt } from './placed';

/** A zone in sentences. */
@Component({
  selector: 'ee-zone-sentences',
  imports: [Part, Sentence, Clauses, Note, ThenList, PlacedAt],
  templateUrl: './zone-sentences.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ZoneSentences extends SpecFields {
  protected readonly clauses: readonly Clause[] = [
    { at: 'onEnter', name: 'on entering', begins: [] },
    { at: 'onLeave', name: 'on leaving', begins: [] },
    { at: 'every', name: 'again and again inside', begins: { time: '1s', then: [] } },
    NOTE,
  ];
}
