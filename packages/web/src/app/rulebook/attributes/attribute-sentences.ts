import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Carriers } from '../spec/carriers';
import { type Clause, Clauses } from '../spec/clauses';
import { amount, choice, duration, number, text } from '../spec/formats';
import { Note, NOTE } from '../spec/note';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecContext } from '../spec/spec-context';

export const SEEN_BY = { owner: 'its owner', team: 'the crew', everyone: 'everyone', server: 'the server alone' };

/** An attribute in sentences. */
@Component({
  selector: 'ee-attribute-sentences',
  imports: [Part, Sentence, Clauses, Carriers, Note],
  template: `
    <ee-sentence>
      A <ee-part at="kind" [format]="kinds" label="kind" /> @if (kind() === 'stat') { that is <ee-part at="start" [format]="amount" label="base" empty="0" /> } from
      <ee-part at="min" [format]="amount" label="minimum" empty="0" /> to <ee-part at="max" [format]="amount" label="maximum" empty="no end" />@if (has('unit')) {, in
      <ee-part at="unit" [format]="text" label="unit" empty="no unit" />}@if (kind() !== 'stat') {, starting
      <ee-part at="start" [format]="amount" label="start" [empty]="kind() === 'pool' && has('max') ? 'full' : 'at 0'" />}.
    </ee-sentence>
    @if (has('refill')) {
      <ee-sentence clause="refill" at="refill">
        It refills <ee-part at="refill/rate" [format]="amount" label="refill a second" /> a second, every
        <ee-part at="refill/every" [format]="duration" label="interval" empty="tick" />@if (has('refill/pause')) {, and rests
        <ee-part at="refill/pause" [format]="duration" label="pause after a loss" empty="no time" /> after a loss}.
      </ee-sentence>
    }
    @if (has('whole')) {
      <ee-sentence clause="whole numbers" at="whole">It is counted in <ee-part at="whole" [format]="wholeness" label="whole numbers" />.</ee-sentence>
    }
    <ee-sentence>
      Seen by <ee-part at="see" [format]="seen" label="seen by" empty="its owner" />@if (!whole()) {, to <ee-part at="decimals" [format]="decimals" label="decimals" empty="one decimal" />}.
    </ee-sentence>
    @if (has('saved')) {
      <ee-sentence clause="kept" at="saved">It <ee-part at="saved" [format]="kept" label="kept between sessions" /> between sessions.</ee-sentence>
    }
    @if (has('group')) {
      <ee-sentence clause="group" at="group">It is listed under <ee-part at="group" [format]="text" label="group" />.</ee-sentence>
    }
    <ee-note />
    <ee-clauses [all]="clauses" />
    <ee-carriers />
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AttributeSentences {
  private readonly context = inject(SpecContext);
  protected readonly amount = amount;
  protected readonly duration = duration;
  protected readonly text = text;
  protected readonly kinds = choice({ pool: 'pool', stat: 'stat', counter: 'counter' });
  protected readonly seen = choice(SEEN_BY);
  protected readonly decimals = {
    ...number,
    show: (value: unknown) => ({
      text: ['no decimals', 'one decimal', 'two decimals', 'three decimals', 'four decimals'][Number(value)] ?? String(value),
      look: 'word' as const,
    }),
  };
  protected readonly wholeness = asFlag({ true: 'whole numbers', false: 'fractions' });
  protected readonly kept = asFlag({ true: 'is kept', false: 'is forgotten' });
  protected readonly kind = computed(() => this.context.value('kind'));
  protected readonly whole = computed(() => this.context.value('whole') === true || this.kind() === 'counter');
  protected readonly clauses: readonly Clause[] = [
    { at: 'refill', name: 'refill', begins: { rate: 1 }, fits: (entry) => entry['kind'] !== 'stat' },
    { at: 'refill/pause', name: 'pause after a loss', begins: '2s', fits: (entry) => entry['refill'] !== undefined },
    { at: 'whole', name: 'whole numbers', begins: true, fits: (entry) => entry['kind'] !== 'counter' },
    { at: 'saved', name: 'kept between sessions', begins: true, fits: (entry) => entry['kind'] === 'pool' },
    { at: 'unit', name: 'unit', begins: 'points' },
    { at: 'group', name: 'group', begins: 'General' },
    NOTE,
  ];

  protected has(at: string): boolean {
    return this.context.value(at) !== undefined;
  }
}

/** A yes or no, said in two words. */
function asFlag(words: { true: string; false: string }) {
  const base = choice(words);
  return {
    ...base,
    read: (typed: string) => {
      const reading = base.read(typed, undefined);
      return reading.error === undefined ? { value: reading.value === 'true' } : reading;
    },
    choices: (typed: string) => base.choices(typed, undefined).map((option) => ({ ...option, hint: '' })),
  };
}
