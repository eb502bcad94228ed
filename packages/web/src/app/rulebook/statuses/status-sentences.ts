import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { SEEN_BY } from '../attributes/attribute-sentences';
import { type Clause, Clauses } from '../spec/clauses';
import { choice, text } from '../spec/formats';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecContext } from '../spec/spec-context';

/** A status in sentences. */
@Component({
  selector: 'ee-status-sentences',
  imports: [Part, Sentence, Clauses],
  template: `
    <ee-sentence>Somebody either is this or is not, however many things say so. Seen by <ee-part at="see" [format]="seen" label="seen by" empty="everyone" />.</ee-sentence>
    @if (noted()) {
      <ee-sentence clause="note" at="note"><ee-part at="note" [format]="text" label="note" /></ee-sentence>
    }
    <ee-clauses [all]="clauses" />
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StatusSentences {
  private readonly context = inject(SpecContext);
  protected readonly text = text;
  protected readonly seen = choice(SEEN_BY);
  protected readonly noted = computed(() => this.context.value('note') !== undefined);
  protected readonly clauses: readonly Clause[] = [{ at: 'note', name: 'note', begins: 'Write what it is for.' }];
}
