import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { Choose, type Way } from '../spec/choose';
import { amount } from '../spec/formats';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecContext } from '../spec/spec-context';
import { ThenList } from '../spec/then-list';

interface ThresholdJson {
  readonly id: string;
  readonly end?: 'empty' | 'full';
  readonly from?: unknown;
  readonly to?: unknown;
  readonly margin?: unknown;
  readonly enter?: readonly unknown[];
  readonly leave?: readonly unknown[];
}

const WAYS: readonly Way[] = [
  { value: 'empty', label: 'at its minimum' },
  { value: 'full', label: 'at its maximum' },
  { value: 'to', label: 'at most' },
  { value: 'from', label: 'at least' },
  { value: 'between', label: 'between' },
];

/** What happens when an attribute enters a range, and when it leaves it. */
@Component({
  selector: 'ee-threshold',
  imports: [Choose, Part, Sentence, ThenList],
  template: `
    <ee-sentence [clause]="'threshold ' + threshold().id" (removed)="remove()">
      When it is <ee-choose [ways]="ways()" [value]="way()" label="range" (chosen)="choose($event)" />@if (way() === 'from' || way() === 'between') {&ngsp;<ee-part
        [at]="at() + '/from'" [format]="amount" label="from" />}@if (way() === 'between') { and }@if (way() === 'to' || way() === 'between') {&ngsp;<ee-part
        [at]="at() + '/to'" [format]="amount" label="to" />}:
    </ee-sentence>
    <ee-then [at]="at() + '/enter'">
      @if (!leaves()) {
        <button type="button" class="more" (click)="set('leave', [])">+ when it leaves</button>
      }
    </ee-then>
    @if (leaves()) {
      <ee-sentence clause="what follows leaving" (removed)="set('leave', undefined)">
        When it is more than <ee-part [at]="at() + '/margin'" [format]="amount" label="margin" empty="0" /> beyond that again:
      </ee-sentence>
      <ee-then [at]="at() + '/leave'" />
    }
    @if (refusal()) {
      <p class="refusal" role="alert">{{ refusal() }}</p>
    }
  `,
  styles: `
    .more {
      color: var(--soft);
      font: 600 12px var(--sans);
    }
    .more:hover {
      color: var(--ember);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Threshold {
  readonly index = input.required<number>();
  private readonly context = inject(SpecContext);
  protected readonly amount = amount;
  protected readonly refusal = signal('');
  protected readonly at = computed(() => `thresholds/${this.index()}`);
  protected readonly threshold = computed(() => (this.context.value(this.at()) ?? { id: '' }) as ThresholdJson);
  protected readonly leaves = computed(() => this.threshold().leave !== undefined || this.threshold().margin !== undefined);
  protected readonly ways = computed(() => WAYS.filter(({ value }) => value !== 'full' || this.context.value('max') !== undefined));
  protected readonly way = computed(() => {
    const { end, from, to } = this.threshold();
    if (end !== undefined) return end;
    return from !== undefined && to !== undefined ? 'between' : from !== undefined ? 'from' : 'to';
  });

  /** Another range: its ends begin where the old ones were, or at something that can be changed. */
  protected choose(way: string): void {
    const { end: _, from = 0, to = 20, ...rest } = this.threshold();
    const range = { empty: { end: 'empty' }, full: { end: 'full' }, to: { to }, from: { from }, between: { from, to } }[way];
    const margin = rest.margin === undefined ? {} : { margin: rest.margin };
    const { id, enter, leave } = rest;
    void this.put({ id, ...range, ...margin, ...(enter && { enter }), ...(leave && { leave }) } as ThresholdJson);
  }

  protected set(field: 'leave', value: readonly unknown[] | undefined): void {
    const { [field]: _, margin: __, ...rest } = this.threshold();
    void this.put(value === undefined ? rest : { ...this.threshold(), [field]: value });
  }

  private async put(threshold: ThresholdJson): Promise<void> {
    const problems = await this.context.set(this.at(), threshold);
    this.refusal.set(problems.map((problem) => problem.message).join(' '));
  }

  protected async remove(): Promise<void> {
    const all = (this.context.value('thresholds') as readonly unknown[]).filter((_, i) => i !== this.index());
    const problems = await this.context.set('thresholds', all.length > 0 ? all : undefined);
    this.refusal.set(problems.map((problem) => problem.message).join(' '));
  }
}
