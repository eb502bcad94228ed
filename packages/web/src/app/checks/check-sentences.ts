import { ChangeDetectionStrategy, Component, computed, inject, resource } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import type { ActionDescription } from '@eager-ember/core';
import { CoreClient } from '../shared/core-client';
import { beginningsOf } from '../rulebook/spec/action-pieces';
import { type Clause, Clauses } from '../rulebook/spec/clauses';
import { Note, NOTE } from '../rulebook/spec/note';
import { text } from '../rulebook/spec/formats';
import { Part } from '../rulebook/spec/part';
import { Sentence } from '../rulebook/spec/sentence';
import { AlwaysChip } from './always-chip';
import { ChangeLine } from './change-line';
import { CheckTable } from './check-table';
import { GivenAndAlways } from './given-and-always';
import { GivenLine } from './given-line';
import { StepLine } from './step-line';
import { TestLine } from './test-line';
import { Verdict } from './verdict';

interface StageJson {
  readonly when?: readonly unknown[];
  readonly then?: readonly unknown[];
}

/** A check in sentences: given, when, then, always. */
@Component({
  selector: 'ee-check-sentences',
  imports: [MatMenuModule, AlwaysChip, ChangeLine, CheckTable, Clauses, GivenLine, Note, Part, Sentence, StepLine, TestLine, Verdict],
  templateUrl: './check-sentences.html',
  styleUrl: './check-sentences.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CheckSentences extends GivenAndAlways {
  private readonly client = inject(CoreClient);
  private readonly allActions = resource({ loader: () => this.client.actions() });
  private readonly allInputs = resource({ loader: () => this.client.inputs() });
  protected readonly text = text;
  protected readonly clauses: readonly Clause[] = [{ at: 'group', name: 'group', begins: 'A group' }, NOTE];
  protected readonly changes = computed(() => this.list('changes'));
  protected readonly stages = computed(() =>
    this.list<StageJson>('stages').map(({ when = [], then = [] }) => ({ when: [...when.keys()], then: [...then.keys()] })),
  );
  /** Actions that can be done at once from outside. */
  protected readonly actions = computed(() => (this.allActions.value() ?? []).filter(({ steers, onlyInLists }) => !steers && !onlyInLists));
  protected readonly inputs = computed(() => this.allInputs.value() ?? []);

  protected addChange(): void {
    void this.add('changes', { attributes: this.attribute(), at: 'start', value: 1 });
  }

  protected addTable(): void {
    void this.put('each', { columns: ['start', 'expected'], rows: [[1, 1]] });
  }

  /** Adds to the last stage; a step behind what was expected begins another. */
  private addToStage(list: 'when' | 'then', item: unknown): void {
    void this.revise<readonly StageJson[] | undefined>('stages', (now = []) => withItem(now, list, item));
  }

  protected pass(): void {
    this.addToStage('when', { pass: '1s' });
  }

  protected ask(input: ActionDescription): void {
    this.addToStage('when', { seat: this.someone(), input: { do: input.do, ...this.written(input) } });
  }

  protected act(action: ActionDescription): void {
    this.addToStage('when', { on: this.someone(), action: { do: action.do, ...this.written(action) } });
  }

  /** What a new one says; of what there is none yet, a name that is to be made. */
  private written(action: ActionDescription): Record<string, unknown> {
    const begins = beginningsOf(action, this.context.document());
    const names = action.args.filter(({ name, kind }) => kind === 'reference' && name in begins);
    for (const { name } of names) if (name === 'attribute') begins[name] = this.attribute();
    for (const { name } of names) begins[name] ??= name;
    return begins;
  }

  protected wait(): void {
    this.addToStage('when', { until: `${this.attribute()} > 0`, of: this.someone(), within: '10s' });
  }

  protected waitForEvent(): void {
    this.addToStage('when', { untilEvent: { on: 'attributeChanged' }, within: '10s' });
  }

  /** Somebody who comes later and whom no step has come in; somebody new where there is none. */
  protected comeIn(): void {
    const given = this.list<{ readonly name: string; readonly later?: boolean }>('given');
    const stages = this.list<StageJson>('stages');
    const came = stages.flatMap(({ when = [] }) => when.map((step) => (step as { readonly joins?: string }).joins));
    const awaited = given.find(({ name, later }) => later && !came.includes(name))?.name;
    if (awaited !== undefined) return this.addToStage('when', { joins: awaited });
    const name = this.newName();
    void this.putAll({ given: [...given, { name, later: true }], stages: withItem(stages, 'when', { joins: name }) });
  }

  protected leave(): void {
    this.addToStage('when', { leaves: this.someone() });
  }

  protected comeBack(): void {
    this.addToStage('when', { returns: this.someone() });
  }

  protected expectValue(): void {
    this.addToStage('then', { of: this.someone(), value: this.attribute(), how: 'is', amount: 1 });
  }

  protected expectCondition(): void {
    this.addToStage('then', { of: this.someone(), that: `${this.attribute()} > 0` });
  }

  protected expectEvent(): void {
    this.addToStage('then', { event: { on: 'attributeChanged' }, of: this.someone(), times: 1 });
  }

  protected expectRefusal(): void {
    this.addToStage('then', { of: this.someone(), refused: '' });
  }

  protected restart(): void {
    this.addToStage('when', { restarts: true });
  }

  protected expectReading(): void {
    this.addToStage('then', { seat: this.someone(), reads: 'Something' });
  }

  protected expectKnowing(): void {
    this.addToStage('then', { seat: this.names()[1] ?? this.someone(), knows: this.attribute(), of: this.someone() });
  }

  protected expectRuleset(): void {
    this.addToStage('then', { ruleset: 'refused', saying: '' });
  }
}

/** Stages with something more in the last of them, or in another behind it. */
function withItem(stages: readonly StageJson[], list: 'when' | 'then', item: unknown): readonly StageJson[] {
  const last = stages.at(-1);
  const fits = last !== undefined && (list === 'then' || (last.then ?? []).length === 0);
  const stage = fits ? last : {};
  const next = { ...stage, [list]: [...(stage[list] ?? []), item] };
  return fits ? [...stages.slice(0, -1), next] : [...stages, next];
}
