import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { Choose, type Way } from '../spec/choose';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecFields } from '../spec/spec-fields';
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
      When it is <ee-choose [ways]="ways()" [value]="way()" label="range" (chosen)="choose($event)" />@if (way() === 'from' || way() === 'between') {&ngsp;<ee-part [at]="at() + '/from'" label="from" />}@if (way() === 'between') { and }@if (way() === 'to' || way() === 'between') {&ngsp;<ee-part [at]="at() + '/to'" label="to" />}:
    </ee-sentence>
    <ee-then [at]="at() + '/enter'">
      @if (!leaves()) {
        <button type="button" class="more" (click)="leave()">+ when it leaves</button>
      }
    </ee-then>
    @if (leaves()) {
      <ee-sentence clause="what follows leaving" (removed)="noLeave()">
        When it is more than <ee-part [at]="at() + '/margin'" label="margin" /> beyond that again:
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
export class Threshold extends SpecFields {
  readonly index = input.required<number>();
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
    void this.revise<ThresholdJson>(this.at(), ({ id, end: _, from = 0, to = 20, ...rest }) => ({
      id,
      ...{ empty: { end: 'empty' }, full: { end: 'full' }, to: { to }, from: { from }, between: { from, to } }[way],
      ...rest,
    }));
  }

  protected leave(): void {
    void this.put(`${this.at()}/leave`, []);
  }

  /** Nothing follows leaving it, and then it needs no margin either. */
  protected noLeave(): void {
    void this.revise<ThresholdJson>(this.at(), ({ leave: _, margin: __, ...rest }) => rest);
  }

  protected remove(): void {
    void this.removeFrom('thresholds', this.index());
  }
}
