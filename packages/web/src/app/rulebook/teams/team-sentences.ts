import { ChangeDetectionStrategy, Component } from '@angular/core';
import { Colour } from '../attributes/colour';
import { type Clause, Clauses } from '../spec/clauses';
import { Note, NOTE } from '../spec/note';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecFields } from '../spec/spec-fields';

/** A team in sentences: how one sees it, how many it takes, and whom. */
@Component({
  selector: 'ee-team-sentences',
  imports: [Clauses, Colour, Note, Part, Sentence],
  template: `
    <ee-sentence>
      It is marked <ee-part at="mark" label="mark" />, filled <ee-part at="pattern" label="pattern" />@if (has('colour')) {, in <ee-colour />}.
    </ee-sentence>
    <ee-sentence>It takes <ee-part at="capacity" label="most players" /> players. <ee-part at="open" label="whether players are assigned to it" />.</ee-sentence>
    <ee-note />
    <ee-clauses [all]="clauses" />
    @if (refusal()) {
      <p class="refusal" role="alert">{{ refusal() }}</p>
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TeamSentences extends SpecFields {
  protected readonly clauses: readonly Clause[] = [{ at: 'colour', name: 'colour', begins: '#0e6b6f' }, NOTE];
}
