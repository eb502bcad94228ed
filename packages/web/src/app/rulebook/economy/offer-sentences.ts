import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { Choose, type Way } from '../spec/choose';
import { type Clause, Clauses } from '../spec/clauses';
import { Note, NOTE } from '../spec/note';
import { Part } from '../spec/part';
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
      It costs <ee-part at="costs" label="what it costs" /> and gives <ee-part at="gets" label="what it gives" />, both or neither; it can be bought <ee-choose [ways]="ways" [value]="how()" label="how often it can be bought" (chosen)="turn($event)" />@if (how() === 'tiers') {{{ ' ' }}<ee-part at="tiers" label="tiers" />} @else if (how() === 'atMost') {{{ ' ' }}<ee-part at="atMost" label="at most" />}.
    </ee-sentence>
    @if (has('stock')) {
      <ee-sentence clause="stock" (removed)="putAll({ stock: undefined, restock: undefined })">There are <ee-part at="stock" label="stock" /> for everybody together, <ee-part at="restock" label="filled up" />.</ee-sentence>
    }
    @for (need of list('needs'); track $index) {
      <ee-sentence clause="need" (removed)="removeFrom('needs', $index)">
        A buyer needs <ee-part [at]="'needs/' + $index + '/if'" [label]="'need ' + ($index + 1)" />; otherwise they read “<ee-part [at]="'needs/' + $index + '/say'" [label]="'words for need ' + ($index + 1)" />”.
      </ee-sentence>
    }
    @if (has('upkeep')) {
      <ee-sentence clause="upkeep" at="upkeep">Whoever has it pays <ee-part at="upkeep" label="upkeep" /> at each end of a day.</ee-sentence>
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
