import { ChangeDetectionStrategy, Component, computed, effect, inject, input, output, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Cause, Why, WhyModifier } from '@eager-ember/core';
import { Store } from '@ngrx/store';
import { documentFeature } from '../store/document.reducer';
import { AbilitySheet } from './ability-sheet';
import type { RoomLink } from '../seat/room-link';
import { StateSheet } from './state-sheet';
import { clock } from './trace';

const ASKED_EVERY_MS = 250;
const SAYS: Readonly<Record<WhyModifier['operation'], (amount: string) => string>> = {
  add: (amount) => `${amount.startsWith('-') ? '' : '+ '}${amount}`,
  percent: (amount) => `${amount.startsWith('-') ? '' : '+'}${amount} %`,
  times: (amount) => `× ${amount}`,
  set: (amount) => `set to ${amount}`,
  atLeast: (amount) => `at least ${amount}`,
  atMost: (amount) => `at most ${amount}`,
};

const PARTS = [
  { part: 'values', label: 'Values' },
  { part: 'abilities', label: 'Abilities' },
  { part: 'states', label: 'States' },
] as const;

/** What an actor's values are made of at the moment, and what last changed the one that is looked at. */
@Component({
  selector: 'ee-why',
  imports: [AbilitySheet, RouterLink, StateSheet],
  templateUrl: './why.html',
  styleUrl: './why.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WhySheet {
  readonly link = input.required<RoomLink>();
  readonly row = input.required<number>();
  readonly name = input.required<string>();
  readonly tickRate = input.required<number>();
  readonly closed = output<void>();
  protected readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
  protected readonly chosen = signal('');
  /** What of it is looked at. */
  protected readonly part = signal<(typeof PARTS)[number]['part']>('values');
  protected readonly parts = PARTS;
  protected readonly answer = computed(() => {
    const answer = this.link().answer();
    return answer?.row === this.row() ? answer : undefined;
  });
  protected readonly values = computed<readonly Why[]>(() => this.answer()?.values ?? []);
  protected readonly value = computed(() => this.values().find((each) => each.attribute === this.chosen()));
  protected readonly causes = computed<readonly (readonly Cause[])[]>(() =>
    this.answer()?.attribute === this.chosen() ? this.answer()!.causes : [],
  );
  protected readonly clock = (tick: number) => clock(tick, this.tickRate());

  constructor() {
    effect((onCleanup) => {
      const [link, row, chosen] = [this.link(), this.row(), this.chosen()];
      if (this.part() !== 'values') return;
      const ask = () => link.askWhy(row, chosen);
      ask();
      const timer = setInterval(ask, ASKED_EVERY_MS);
      onCleanup(() => clearInterval(timer));
    });
    // What is modified is most worth asking about.
    effect(() => {
      const values = this.values();
      if (values.length === 0 || untracked(this.value)) return;
      this.chosen.set((values.find((each) => each.modifiers.some(({ effect }) => effect !== '')) ?? values[0]).attribute);
    });
  }

  protected shown({ value }: Why): string {
    return String(Number(value.toFixed(2)));
  }

  protected says({ operation, counts }: WhyModifier): string {
    return SAYS[operation](String(Number(counts.toFixed(4))));
  }

  protected ends({ left, uses }: WhyModifier): string {
    const parts = [
      ...(left === undefined ? [] : [`${left.toFixed(1)} s left`]),
      ...(uses === undefined ? [] : [`${uses} ${uses === 1 ? 'use' : 'uses'} left`]),
    ];
    return parts.join(', ') || 'until something ends it';
  }
}
