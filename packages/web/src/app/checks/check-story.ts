import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import type { CheckQuestions, CheckStory } from '@eager-ember/core';
import { SpecContext } from '../rulebook/spec/spec-context';
import { CoreClient } from '../shared/core-client';
import type { RulesetJson } from '../shared/api';
import { CheckResults } from './check-results';
import { Covered } from './covered';
import { StoryView } from './story-view';

/** What happened in a check: values over time, what was on, what was told, and why it is not what was expected. */
@Component({
  selector: 'ee-check-story',
  imports: [Covered, StoryView],
  templateUrl: './check-story.html',
  styleUrl: './check-story.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CheckStoryPage {
  readonly id = input.required<string>();
  private readonly client = inject(CoreClient);
  private readonly context = inject(SpecContext);
  private readonly results = inject(CheckResults);
  protected readonly story = signal<CheckStory | undefined>(undefined);
  protected readonly failure = signal('');
  /** The row of its table that is looked at; the first that fails where nobody chose one. */
  protected readonly chosen = signal<number | undefined>(undefined);
  private of = '';
  private turn = 0;

  protected readonly rows = computed(() => this.results.result(this.id())?.rows ?? []);
  protected readonly row = computed(() => this.chosen() ?? this.rows().find(({ ok }) => !ok)?.row ?? 0);
  protected readonly seed = computed(() => Number(this.context.value('seed') ?? 1));

  constructor() {
    effect(() => {
      const [document, id, chosen] = [this.context.document(), this.id(), this.chosen()];
      if (document) untracked(() => void this.look(document, id, chosen));
    });
  }

  private async look(document: RulesetJson, id: string, row: number | undefined): Promise<void> {
    const turn = ++this.turn;
    if (this.of !== id) {
      this.of = id;
      this.story.set(undefined);
      if (row !== undefined) return this.chosen.set(undefined);
    }
    try {
      const story = await this.client.of<CheckQuestions>('checks').story(document, id, row);
      if (turn !== this.turn) return;
      this.story.set(story);
      this.failure.set('');
    } catch (error) {
      if (turn === this.turn) this.failure.set(error instanceof Error ? error.message : String(error));
    }
  }

  protected take(path: string, value: number): void {
    void this.context.set(path, value);
  }
}
