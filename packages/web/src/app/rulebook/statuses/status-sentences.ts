import { ChangeDetectionStrategy, Component } from '@angular/core';
import { type Clause, Clauses } from '../spec/clauses';
import { Note, NOTE } from '../spec/note';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';

/** A status in sentences. */
@Component({
  selector: 'ee-status-sentences',
  imports: [Part, Sentence, Clauses, Note],
  template: `
    <ee-sentence>Somebody either is this or is not, however many things say so. Seen by <ee-part at="see" label="seen by" />.</ee-sentence>
    <ee-note />
    <ee-clauses [all]="clauses" />
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StatusSentences {
  protected readonly clauses: readonly Clause[] = [NOTE];
}
