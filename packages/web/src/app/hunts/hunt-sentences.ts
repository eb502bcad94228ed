import { ChangeDetectionStrategy, Component, computed, inject, resource } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import type { ActionDescription, HuntQuestions } from '@eager-ember/core';
import { AlwaysChip } from '../checks/always-chip';
import { GivenAndAlways } from '../checks/given-and-always';
import { GivenLine } from '../checks/given-line';
import { TestLine } from '../checks/test-line';
import { beginningsOf } from '../rulebook/spec/action-pieces';
import { type Clause, Clauses } from '../rulebook/spec/clauses';
import { duration, text } from '../rulebook/spec/formats';
import { Note, NOTE } from '../rulebook/spec/note';
import { Part } from '../rulebook/spec/part';
import { Sentence } from '../rulebook/spec/sentence';
import { CoreClient } from '../shared/core-client';
import { MayLine } from './may-line';

/** A hunt in sentences: who is there, what may happen, what always has to hold. */
@Component({
  selector: 'ee-hunt-sentences',
  imports: [MatMenuModule, AlwaysChip, Clauses, GivenLine, MayLine, Note, Part, Sentence, TestLine],
  templateUrl: './hunt-sentences.html',
  styleUrl: './hunt-sentences.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HuntSentences extends GivenAndAlways {
  private readonly client = inject(CoreClient);
  private readonly allActions = resource({ loader: () => this.client.actions() });
  private readonly known = resource({
    params: () => this.context.document(),
    loader: ({ params }) => this.client.of<HuntQuestions>('hunts').invariants(params),
  });
  protected readonly text = text;
  protected readonly duration = duration;
  protected readonly clauses: readonly Clause[] = [{ at: 'group', name: 'group', begins: 'A group' }, NOTE];
  protected readonly may = computed(() => this.list('may'));
  protected readonly seeds = computed(() => this.list<number>('seeds'));
  /** Actions that can be done at once from outside. */
  protected readonly actions = computed(() => (this.allActions.value() ?? []).filter(({ steers, onlyInLists }) => !steers && !onlyInLists));
  private readonly without = computed(() => new Set(this.list<string>('without')));
  /** What holds of any ruleset, and whether it is looked at here. */
  protected readonly built = computed(() => (this.known.value() ?? []).map((one) => ({ ...one, out: this.without().has(one.name) })));

  protected mayAsk(): void {
    void this.add('may', { input: 'anything' });
  }

  protected mayBePoked(): void {
    void this.add('may', { poke: 'hurt' });
  }

  protected mayBeDone(action: ActionDescription): void {
    void this.add('may', { on: this.someone(), action: { do: action.do, ...beginningsOf(action, this.context.document()) } });
  }

  protected mayLeave(): void {
    void this.add('may', { leaves: 'everyone' });
  }

  protected mayRestart(): void {
    void this.add('may', { restarts: true });
  }

  protected mayPass(): void {
    void this.add('may', { pass: '5s' });
  }

  protected forget(seed: number): void {
    void this.removeFrom('seeds', this.seeds().indexOf(seed));
  }

  /** Looks at something that holds of any ruleset, or leaves it out. */
  protected toggle(name: string): void {
    const out = this.without();
    const next = this.built()
      .map((one) => one.name)
      .filter((one) => (one === name ? !out.has(one) : out.has(one)));
    void this.put('without', next.length === 0 ? undefined : next);
  }
}
