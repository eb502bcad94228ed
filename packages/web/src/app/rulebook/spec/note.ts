import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import type { Clause } from './clauses';
import { Part } from './part';
import { Sentence } from './sentence';
import { SpecContext } from './spec-context';

/** The clause that adds a note to any entry. */
export const NOTE: Clause = { at: 'note', name: 'note', begins: 'Write what it is for.' };

/** An entry's note, where it has one. */
@Component({
  selector: 'ee-note',
  imports: [Part, Sentence],
  template: `
    @if (noted()) {
      <ee-sentence clause="note" at="note"><ee-part at="note" label="note" /></ee-sentence>
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Note {
  private readonly context = inject(SpecContext);
  protected readonly noted = computed(() => this.context.value('note') !== undefined);
}
