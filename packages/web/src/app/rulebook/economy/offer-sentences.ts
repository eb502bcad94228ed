import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { Choose, type Way } from '../spec/choose';
import { type Clause, Clauses } from '../spec/clauses';
import { amountOver, choice, condition, numberFrom, text } from '../spec/formats';
import { Note, NOTE } from '../spec/note';
import { Part } from '../spec/part';
import { partsWith } from '../spec/parts';
import { Sentence } from '../spec/sentence';
import { SpecFields } from '../spec/spec-fields';
import { ThenList } from '../spec/then-list';

const HOW: readonly Way[] = [
  { value: 'again', label: 'again and again', hint: 'as often as one can pay' },
  { value: 'tiers', label: 'tier by tier, up to', hint: 'prices can speak of the tier' },
  { value: 'atMost', label: 'at most so many times:', hint: 'per player' },
];

/** An offer in sentences: what it costs and gives, how often it can be had, and what it takes to keep. */
@Component({
  selector: 'ee-offer-sentences',
  imports: [Choose, Clauses, Note, Part, Sentence, ThenList],
  template: `
    <ee-sentence>
      It costs <ee-part at="costs" [format]="parts" label="what it costs" empty="nothing" /> and gives <ee-part at="gets" [format]="parts" label="what it gives" empty="nothing that is counted" />, both or neither; it can be bought <ee-choose [ways]="ways" [value]="how()" label="how often it can be bought" (chosen)="turn($event)" />@if (how() === 'tiers') {{{ ' ' }}<ee-part at="tiers" [format]="tiers" label="tiers" />} @else if (how() === 'atMost') {{{ ' ' }}<ee-part at="atMost" [format]="count" label="at most" />}.
    </ee-sentence>
    @if (has('stock')) {
      <ee-sentence clause="stock" (removed)="putAll({ stock: undefined, restock: undefined })">There are <ee-part at="stock" [format]="stock" label="stock" /> for everybody together, <ee-part at="restock" [format]="restock" label="filled up" empty="and never more" />.</ee-sentence>
    }
    @for (need of list('needs'); track $index) {
      <ee-sentence clause="need" (removed)="removeFrom('needs', $index)">
        A buyer needs <ee-part [at]="'needs/' + $index + '/if'" [format]="condition" [label]="'need ' + ($index + 1)" />; otherwise they read “<ee-part [at]="'needs/' + $index + '/say'" [format]="words" [label]="'words for need ' + ($index + 1)" />”.
      </ee-sentence>
    }
    @if (has('upkeep')) {
      <ee-sentence clause="upkeep" at="upkeep">Whoever has it pays <ee-part at="upkeep" [format]="over" label="upkeep" /> at each end of a day.</ee-sentence>
    }
    @if (has('then')) {
      <ee-sentence clause="what happens" at="then">When it is bought:</ee-sentence>
      <ee-then at="then" />
    }
    <ee-note />
    <ee-clauses [all]="clauses">
      <button type="button" class="chip" (click)="add('needs', { if: 'true', say: 'Not yet.' })">need</button>
    </ee-clauses>
    @if (refusal()) {
      <p class="refusal" role="alert">{{ refusal() }}</p>
    }
  `,
  styleUrl: '../world/world.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class OfferSentences extends SpecFields {
  protected readonly ways = HOW;
  protected readonly parts = partsWith(['tier']);
  protected readonly over = amountOver(['tier']);
  protected readonly words = text;
  protected readonly condition = condition;
  protected readonly tiers = numberFrom(1, 50, '', true);
  protected readonly count = numberFrom(1, 1_000_000, '', true);
  protected readonly stock = numberFrom(0, 1_000_000, '', true);
  protected readonly restock = choice({ never: 'and never more', daily: 'filled up each day' });
  protected readonly how = computed(() => (this.has('tiers') ? 'tiers' : this.has('atMost') ? 'atMost' : 'again'));
  protected readonly clauses: readonly Clause[] = [
    { at: 'stock', name: 'stock', begins: 1 },
    { at: 'upkeep', name: 'upkeep', begins: '2 * tier' },
    { at: 'then', name: 'what happens', begins: [] },
    NOTE,
  ];

  protected turn(way: string): void {
    void this.putAll({ tiers: way === 'tiers' ? 3 : undefined, atMost: way === 'atMost' ? 1 : undefined });
  }
}
