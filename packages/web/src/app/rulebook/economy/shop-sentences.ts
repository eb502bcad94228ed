import { ChangeDetectionStrategy, Component } from '@angular/core';
import { entriesOf } from '../entries';
import { type Clause, Clauses } from '../spec/clauses';
import { Note, NOTE } from '../spec/note';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecFields } from '../spec/spec-fields';

/** A shop in sentences: where it is, and what it sells. */
@Component({
  selector: 'ee-shop-sentences',
  imports: [Clauses, Note, Part, Sentence],
  template: `
    <ee-sentence>It is found at <ee-part at="at" label="where it is" />@if (has('at')) {, within <ee-part at="reach" label="reach" />}, and sells:</ee-sentence>
    <div class="things">
      @for (offer of list('sells'); track offer) {
        <ee-sentence clause="offer" (removed)="removeFrom('sells', $index, true)"><ee-part [at]="'sells/' + $index" [label]="'offer ' + ($index + 1)" /></ee-sentence>
      } @empty {
        <p class="soft">It sells nothing yet.</p>
      }
      <button type="button" class="chip" (click)="addOffer()">+ offer</button>
    </div>
    <ee-note />
    <ee-clauses [all]="clauses" />
    @if (refusal()) {
      <p class="refusal" role="alert">{{ refusal() }}</p>
    }
  `,
  styleUrl: '../world/world.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ShopSentences extends SpecFields {
  protected readonly clauses: readonly Clause[] = [NOTE];

  protected addOffer(): void {
    const taken = this.list<string>('sells');
    const next = entriesOf(this.context.document(), 'offers').find(({ id }) => !taken.includes(id));
    if (!next) return this.refusal.set('It sells every offer that there is: begin another one beside.');
    void this.add('sells', next.id);
  }
}
