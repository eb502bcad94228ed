import { ChangeDetectionStrategy, Component } from '@angular/core';
import { PATTERNS } from '@eager-ember/core';
import { Colour } from '../attributes/colour';
import { type Clause, Clauses } from '../spec/clauses';
import { choice, flag, numberFrom, text } from '../spec/formats';
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
      It is marked <ee-part at="mark" [format]="text" label="mark" empty="•" />, filled <ee-part at="pattern" [format]="pattern" label="pattern" empty="plain" />@if (has('colour')) {, in <ee-colour />}.
    </ee-sentence>
    <ee-sentence>It takes <ee-part at="capacity" [format]="capacity" label="most players" empty="any number of" /> players. <ee-part at="open" [format]="open" label="whether players are assigned to it" empty="Players are assigned to it" />.</ee-sentence>
    <ee-note />
    <ee-clauses [all]="clauses" />
    @if (refusal()) {
      <p class="refusal" role="alert">{{ refusal() }}</p>
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TeamSentences extends SpecFields {
  protected readonly text = text;
  protected readonly capacity = numberFrom(1, 200, 'players', true);
  protected readonly pattern = choice(Object.fromEntries(PATTERNS.map((name) => [name, name])));
  protected readonly open = flag({
    true: 'Players are assigned to it',
    false: 'Nobody is assigned to it, and nobody is let in who asks',
  });
  protected readonly clauses: readonly Clause[] = [{ at: 'colour', name: 'colour', begins: '#0e6b6f' }, NOTE];
}
