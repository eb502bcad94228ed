import { ChangeDetectionStrategy, Component } from '@angular/core';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecFields } from '../spec/spec-fields';
import { ThenList } from '../spec/then-list';
import { Note, NOTE } from '../spec/note';
import { type Clause, Clauses } from '../spec/clauses';
import { PatternSentence } from '../spec/pattern';

/** A reaction of the ruleset in sentences. */
@Component({
  selector: 'ee-reaction-sentences',
  imports: [Part, Sentence, Clauses, Note, ThenList, PatternSentence],
  templateUrl: './reaction-sentences.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReactionSentences extends SpecFields {
  protected readonly clauses: readonly Clause[] = [{ at: 'atMost', name: 'at most', begins: { times: 1 } }, NOTE];
}
