import { ChangeDetectionStrategy, Component } from '@angular/core';
import { SEEN_BY } from '../attributes/attribute-sentences';
import { type Clause, Clauses } from '../spec/clauses';
import { choice } from '../spec/formats';
import { Note, NOTE } from '../spec/note';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';

/** A status in sentences. */
@Component({
  selector: 'ee-status-sentences',
  imports: [Part, Sentence, Clauses, Note],
  template: `
    <ee-sentence>Somebody either is this or is not, however many things say so. Seen by <ee-part at="see" [format]="seen" label="seen by" empty="everyone" />.</ee-sentence>
    <ee-note />
    <ee-clauses [all]="clauses" />
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StatusSentences {
  protected readonly seen = choice(SEEN_BY);
  protected readonly clauses: readonly Clause[] = [NOTE];
}
