import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { entriesOf, freshId } from '../entries';
import { FileExchange } from '../file-exchange';
import { QUEST_FILES } from './quest-files';
import { Choose } from '../spec/choose';
import { type Clause, Clauses } from '../spec/clauses';
import { choice, entry } from '../spec/choices';
import { Note, NOTE } from '../spec/note';
import { Part } from '../spec/part';
import { PatternSentence } from '../spec/pattern';
import { Sentence } from '../spec/sentence';
import { SpecFields } from '../spec/spec-fields';
import { ThenList } from '../spec/then-list';

interface GoalJson {
  readonly id: string;
  readonly [field: string]: unknown;
}
interface StepJson {
  readonly id: string;
  readonly label: string;
  readonly goals: readonly GoalJson[];
  readonly then?: unknown;
}

/** A quest in sentences. */
@Component({
  selector: 'ee-quest-sentences',
  imports: [Choose, Clauses, Note, Part, PatternSentence, Sentence, ThenList],
  templateUrl: './quest-sentences.html',
  styleUrl: '../world/world.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class QuestSentences extends SpecFields {
  private readonly dialog = inject(MatDialog);
  protected readonly together = computed(() => !['player', undefined].includes(this.context.value('takenBy') as string | undefined));
  protected readonly shared = computed(() => this.together() && this.context.value('record') !== 'own');
  protected readonly sharedCounts = choice({ player: 'who is on it', crew: 'the crew', everyone: 'everyone' });
  protected readonly next = entry('quests', (one) => one['id'] !== this.context.id());
  protected readonly repeatsAfter = computed(() => this.context.value('repeats') === 'after');
  protected readonly steps = computed(() =>
    this.list<StepJson>('steps').map(({ id, label, goals, then }, s) => ({
      id,
      label,
      then: then !== undefined,
      goals: goals.map((goal, g) => ({
        id: goal.id,
        at: `steps/${s}/goals/${g}`,
        event: goal['on'] !== undefined,
        count: Number(goal['count'] ?? 1),
        optional: goal['optional'] === true,
        then: goal['then'] !== undefined,
      })),
    })),
  );
  protected readonly clauses: readonly Clause[] = [
    { at: 'text', name: 'what one reads', begins: 'What there is to do.' },
    { at: 'if', name: 'who may have it', begins: 'true' },
    { at: 'limit', name: 'time', begins: '60s' },
    { at: 'onStart', name: 'when it begins', begins: [] },
    { at: 'onFail', name: 'when it fails', begins: [] },
    { at: 'retry', name: 'after failing', begins: false },
    { at: 'abandon', name: 'giving up', begins: false },
    { at: 'see', name: 'who sees it', begins: 'team' },
    { at: 'lineRoom', name: 'room of a line', begins: 40 },
    NOTE,
  ];

  protected offer(by: string): void {
    const chapter = { character: 'actors', zone: 'zones', pickup: 'pickups' }[by];
    const first = entriesOf(this.context.document(), chapter ?? '').find((one) => chapter !== 'actors' || one['kind'] === 'character');
    if (chapter !== undefined && !first)
      return this.refusal.set(`There is nothing of that kind yet: begin one under ${chapter === 'actors' ? 'Actors' : 'World'}.`);
    const what = {
      start: {},
      character: { actor: first?.id },
      zone: { zone: first?.id },
      pickup: { pickup: first?.id },
      event: { event: { on: 'actorDefeated', who: 'source' } },
    }[by];
    void this.add('offered', { by, ...what });
  }

  private freshGoal(steps: readonly StepJson[]): GoalJson {
    const ids = steps.flatMap(({ goals }) => goals.map(({ id }) => id));
    return { id: freshId('goal', ids), line: 'Felled {have}/{need}', on: { on: 'actorDefeated', who: 'source' } };
  }

  protected addStep(): void {
    void this.add<StepJson>('steps', (steps) => {
      const id = freshId(
        'step',
        steps.map((step) => step.id),
      );
      return { id, label: 'Next', goals: [this.freshGoal(steps)] };
    });
  }

  protected removeStep(index: number): void {
    if (this.steps().length === 1) return this.refusal.set('A quest has a step at least: change this one, or delete the quest.');
    void this.removeFrom('steps', index);
  }

  protected addGoal(step: number): void {
    const { id } = this.steps()[step];
    // A goal's id is its own in all of the quest.
    void this.revise<readonly StepJson[]>('steps', (steps) =>
      steps.map((one) => (one.id === id ? { ...one, goals: [...one.goals, this.freshGoal(steps)] } : one)),
    );
  }

  protected removeGoal(step: number, goal: number): void {
    if (this.steps()[step].goals.length === 1)
      return this.refusal.set('A step has a goal at least: change this one, or take the step out.');
    void this.removeFrom(`steps/${step}/goals`, goal);
  }

  /** Has a goal wait for an event, or for a condition: what was said of the other does not hold. */
  protected turn(at: string, event: boolean): void {
    const [first] = entriesOf(this.context.document(), 'attributes');
    const waits = event ? { on: { on: 'actorDefeated', who: 'source' } } : { if: first ? `${first.id} >= 10` : 'true' };
    void this.revise<GoalJson>(at, ({ on: _on, if: _if, count: _count, counts: _counts, ...rest }) => ({ ...rest, ...waits }));
  }

  protected addFailure(): void {
    void this.add('fails', { on: 'actorDefeated' });
  }

  protected addHandIn(): void {
    const first = entriesOf(this.context.document(), 'actors').find((one) => one['kind'] === 'character');
    if (!first) return this.refusal.set('There is no character yet: begin one under Actors.');
    void this.put('handIn', first.id);
  }

  protected addNext(): void {
    const all = entriesOf(this.context.document(), 'quests');
    // What leads here would lead round and round.
    const leadsHere = (id: unknown, depth = 0): boolean =>
      id === this.context.id() || (depth < all.length && leadsHereFrom(all.find((one) => one.id === id)?.['next'], depth + 1));
    const leadsHereFrom = (next: unknown, depth: number) => next !== undefined && leadsHere(next, depth);
    const other = all.find(({ id }) => !leadsHere(id));
    if (!other) return this.refusal.set('There is no other quest yet that does not lead to this one.');
    void this.put('next', other.id);
  }

  protected file(): void {
    this.dialog.open(FileExchange, { data: QUEST_FILES });
  }
}
