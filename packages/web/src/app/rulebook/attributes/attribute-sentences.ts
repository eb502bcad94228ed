import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { freshId } from '../entries';
import { Carriers } from '../spec/carriers';
import { Choose } from '../spec/choose';
import { type Clause, Clauses } from '../spec/clauses';
import { Note, NOTE } from '../spec/note';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecFields } from '../spec/spec-fields';
import { Colour } from './colour';
import { Threshold } from './threshold';

/** What an attribute of another kind can't say. */
const ONLY: Readonly<Record<string, readonly string[]>> = {
  pool: [],
  stat: ['refill', 'taken', 'follow'],
  counter: ['whole', 'decimals', 'follow'],
};

/** An attribute in sentences. */
@Component({
  selector: 'ee-attribute-sentences',
  imports: [Part, Sentence, Clauses, Carriers, Note, Choose, Colour, Threshold],
  template: `
    <ee-sentence>
      A <ee-choose [ways]="options('kind')" [value]="kind()" label="kind" (chosen)="become($event)" /> @if (kind() === 'stat') { that is <ee-part at="start" label="base" empty="0" [unit]="unit()" /> } from
      <ee-part at="min" label="minimum" [unit]="unit()" /> to <ee-part at="max" label="maximum" [unit]="unit()" />@if (has('unit')) {, in
      <ee-part at="unit" label="unit" />}@if (kind() !== 'stat') {, starting
      <ee-part at="start" label="start" [empty]="kind() === 'pool' && has('max') ? 'full' : 'at 0'" [unit]="unit()" />}@if (has('whole')) {, counted in
      <ee-part at="whole" label="whole numbers" />}.
    </ee-sentence>
    @if (has('follow')) {
      <ee-sentence clause="following its maximum" at="follow">When its maximum moves, it <ee-part at="follow" label="following" />.</ee-sentence>
    }
    @if (has('refill')) {
      <ee-sentence clause="refill" at="refill">
        It refills <ee-part at="refill/rate" label="refill a second" [unit]="unit() || 'units a second'" /> a second, every
        <ee-part at="refill/every" label="interval" />@if (has('refill/while')) {, only while
        <ee-part at="refill/while" label="refill condition" />}@if (has('refill/pause')) {, and rests
        <ee-part at="refill/pause" label="pause after a loss" /> after a loss}.
      </ee-sentence>
    }
    @if (has('taken')) {
      <ee-sentence clause="resistance" at="taken">Of what hurts it, <ee-part at="taken" label="what gets through" /> gets through.</ee-sentence>
    }
    @for (index of thresholds(); track index) {
      <ee-threshold [index]="index" />
    }
    <ee-sentence>
      Seen by <ee-part at="see" label="seen by" />@if (!whole()) {, to <ee-part at="decimals" label="decimals" />}@if (has('saved')) {;
      it <ee-part at="saved" label="kept between sessions" /> between sessions}@if (has('group')) {; listed under
      <ee-part at="group" label="group" />}@if (has('colour')) {, drawn in <ee-colour />}@if (has('icon')) {, with the sign
      <ee-part at="icon" label="sign" />}.
    </ee-sentence>
    <ee-note />
    <ee-clauses [all]="clauses">
      <button type="button" class="chip" (click)="addThreshold()">threshold</button>
    </ee-clauses>
    @if (refusal()) {
      <p class="refusal" role="alert">{{ refusal() }}</p>
    }
    <ee-carriers />
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AttributeSentences extends SpecFields {
  protected readonly kind = computed(() => String(this.context.value('kind')));
  protected readonly unit = computed(() => String(this.context.value('unit') ?? ''));
  protected readonly whole = computed(() => this.context.value('whole') === true || this.kind() === 'counter');
  protected readonly thresholds = computed(() => [...((this.context.value('thresholds') as readonly unknown[] | undefined) ?? []).keys()]);
  protected readonly clauses: readonly Clause[] = [
    { at: 'refill', name: 'refill', begins: { rate: 1 }, fits: (entry) => entry['kind'] !== 'stat' },
    { at: 'refill/pause', name: 'pause after a loss', begins: '2s', fits: (entry) => entry['refill'] !== undefined },
    { at: 'refill/while', name: 'refill only while', begins: 'true', fits: (entry) => entry['refill'] !== undefined },
    { at: 'taken', name: 'resistance', begins: 'event.asked * 0.8', fits: (entry) => entry['kind'] !== 'stat' },
    {
      at: 'follow',
      name: 'following its maximum',
      begins: 'share',
      fits: (entry) => entry['kind'] === 'pool' && entry['max'] !== undefined,
    },
    { at: 'whole', name: 'whole numbers', begins: true, fits: (entry) => entry['kind'] !== 'counter' },
    { at: 'saved', name: 'kept between sessions', begins: true, fits: (entry) => entry['kind'] === 'pool' },
    { at: 'unit', name: 'unit', begins: 'points' },
    { at: 'group', name: 'group', begins: 'General' },
    { at: 'colour', name: 'colour', begins: '#0e6b6f' },
    { at: 'icon', name: 'sign', begins: 'gauge' },
    NOTE,
  ];

  /** Another kind: what it can't say goes along with the change. */
  protected async become(kind: string): Promise<void> {
    const gone = (ONLY[kind] ?? []).filter((field) => this.has(field));
    const problems = await this.context.change(`${this.context.entry()?.label}: ${kind}`, (base) => [
      ...gone.map((field) => ({ op: 'remove' as const, path: `${base}/${field}` })),
      { op: 'replace', path: `${base}/kind`, value: kind },
    ]);
    this.told(problems);
  }

  protected addThreshold(): void {
    void this.add<{ readonly id: string }>('thresholds', (all) => {
      const id = freshId(
        all.length === 0 ? 'out' : 'edge',
        all.map((threshold) => threshold.id),
      );
      return { id, end: 'empty', enter: [] };
    });
  }
}
