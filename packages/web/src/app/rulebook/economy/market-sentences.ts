import { ChangeDetectionStrategy, Component } from '@angular/core';
import { entriesOf } from '../entries';
import { Choose, type Way } from '../spec/choose';
import { type Clause, Clauses } from '../spec/clauses';
import { Note, NOTE } from '../spec/note';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecFields } from '../spec/spec-fields';

interface GoodJson {
  readonly good: string;
  readonly price: { readonly range?: readonly number[]; readonly walk?: Readonly<Record<string, number>> };
}

const MOVES: readonly Way[] = [
  { value: 'range', label: 'is drawn anew each day, from', hint: 'each price as likely as another' },
  { value: 'walk', label: 'walks each day, from', hint: 'a step up or down from yesterday’s' },
];

/** A market in sentences: where it is, and what it pays for what. */
@Component({
  selector: 'ee-market-sentences',
  imports: [Choose, Clauses, Note, Part, Sentence],
  template: `
    <ee-sentence>It is found at <ee-part at="at" label="where it is" />@if (has('at')) {, within <ee-part at="reach" label="reach" />}.</ee-sentence>
    <div class="things">
      @for (one of list('goods'); track one.good) {
        <ee-sentence clause="good" (removed)="removeFrom('goods', $index, true)">
          It buys <ee-part [at]="'goods/' + $index + '/good'" [label]="'good ' + ($index + 1)" />, whose price <ee-choose [ways]="moves" [value]="one.price.walk ? 'walk' : 'range'" [label]="'how price ' + ($index + 1) + ' moves'" (chosen)="turn($index, one, $event)" />{{ ' ' }}@if (one.price.walk) {<ee-part [at]="'goods/' + $index + '/price/walk/start'" [label]="'first price of ' + one.good" /> by up to <ee-part [at]="'goods/' + $index + '/price/walk/step'" [label]="'step of ' + one.good" />, between <ee-part [at]="'goods/' + $index + '/price/walk/least'" [label]="'least of ' + one.good" /> and <ee-part [at]="'goods/' + $index + '/price/walk/most'" [label]="'most of ' + one.good" />} @else {<ee-part [at]="'goods/' + $index + '/price/range/0'" [label]="'least of ' + one.good" /> to <ee-part [at]="'goods/' + $index + '/price/range/1'" [label]="'most of ' + one.good" />}, <ee-part [at]="'goods/' + $index + '/whole'" [label]="'whole prices of ' + one.good" />.
        </ee-sentence>
      } @empty {
        <p class="soft">It buys nothing yet.</p>
      }
      <button type="button" class="chip" (click)="addGood()">+ good</button>
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
export class MarketSentences extends SpecFields {
  protected readonly moves = MOVES;
  protected readonly clauses: readonly Clause[] = [NOTE];

  protected override list<T = GoodJson>(at: string): readonly T[] {
    return super.list<T>(at);
  }

  protected turn(index: number, { price }: GoodJson, way: string): void {
    const [least, most] = price.range ?? [price.walk!['least'], price.walk!['most']];
    const start = Math.round((least + most) / 2);
    const step = Math.max(1, Math.round((most - least) / 5));
    void this.put(`goods/${index}/price`, way === 'walk' ? { walk: { start, step, least, most } } : { range: [least, most] });
  }

  protected addGood(): void {
    const taken = this.list('goods').map(({ good }) => good);
    const currency = (this.context.document()?.['economy'] as { currency?: string } | undefined)?.currency;
    const next = entriesOf(this.context.document(), 'attributes').find(
      (one) => one['kind'] === 'counter' && one.id !== currency && !taken.includes(one.id),
    );
    if (!next) return this.refusal.set('There is no other counter that it could buy: begin one under Stats.');
    void this.add('goods', { good: next.id, price: { range: [5, 10] } });
  }
}
