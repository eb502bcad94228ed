import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import type { CheckStory, Found, HuntMistakes, HuntQuestions } from '@eager-ember/core';
import { StoryView } from '../checks/story-view';
import { entriesOf, freshId } from '../rulebook/entries';
import { SpecContext } from '../rulebook/spec/spec-context';
import type { RulesetJson } from '../shared/api';
import { CoreClient } from '../shared/core-client';
import { Editor } from '../store/editor';
import { HuntRuns } from './hunt-runs';

const LONGEST_LABEL = 80;

/** What a hunt came to: how far it is, and the shortest story in which something does not hold. */
@Component({
  selector: 'ee-hunt-result',
  imports: [StoryView],
  templateUrl: './hunt-result.html',
  styleUrls: ['../checks/check-story.scss', './hunt-result.scss'],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HuntResult {
  readonly id = input.required<string>();
  private readonly client = inject(CoreClient);
  private readonly context = inject(SpecContext);
  private readonly editor = inject(Editor);
  private readonly runs = inject(HuntRuns);
  protected readonly story = signal<CheckStory | undefined>(undefined);
  protected readonly mistakes = signal<HuntMistakes>([]);
  protected readonly refusal = signal('');
  protected readonly run = computed(() => this.runs.run(this.id()));
  protected readonly former = computed(() => this.runs.former(this.id()));
  protected readonly found = computed(() => this.run()?.found);
  protected readonly perSecond = computed(() => {
    const { ticks, ms } = this.run() ?? { ticks: 0, ms: 0 };
    return ms === 0 ? 0 : Math.round(ticks / (ms / 1000));
  });
  /** Whether the story that was found is tried first already. */
  protected readonly kept = computed(() => {
    const seeds = (this.context.value('seeds') ?? []) as readonly number[];
    return seeds.includes(this.found()?.story ?? -1);
  });
  private asked = 0;

  constructor() {
    effect(() => {
      const [document, id] = [this.context.document(), this.id()];
      if (document) untracked(() => void this.look(document, id));
    });
    effect(() => {
      const found = this.found();
      untracked(() => void this.tell(found));
    });
  }

  /** What keeps it from being run is said before it is. */
  private async look(document: RulesetJson, id: string): Promise<void> {
    const mistakes = await this.client.of<HuntQuestions>('hunts').mistakes(document, id);
    if (this.id() === id) this.mistakes.set(mistakes);
  }

  private async tell(found: Found | undefined): Promise<void> {
    const turn = ++this.asked;
    this.story.set(undefined);
    const document = this.context.document();
    if (!found || !document) return;
    const story = await this.client.of<HuntQuestions>('hunts').story(document, found.check);
    if (turn === this.asked) this.story.set(story);
  }

  protected start(): void {
    this.refusal.set('');
    void this.runs.start(this.id());
  }

  protected stop(): void {
    this.runs.stop(this.id());
  }

  /** Writes the story that was found as a check of its own, and opens it. */
  protected async asCheck(): Promise<void> {
    const found = this.found();
    if (!found) return;
    const label = `${this.context.entry()?.label ?? 'A hunt'}, story ${found.story}`.slice(0, LONGEST_LABEL);
    let id = '';
    const [problem] = await this.editor.propose((document) => {
      const taken = entriesOf(document, 'checks').flatMap((one) => [one.id, ...((one['formerly'] as readonly string[] | undefined) ?? [])]);
      id = freshId(label, taken);
      const entry = { id, label, note: found.says, ...found.check };
      return 'checks' in document ? [{ op: 'add', path: '/checks/-', value: entry }] : [{ op: 'add', path: '/checks', value: [entry] }];
    }, `${label} as a check`);
    if (problem) return this.refusal.set(problem.message);
    this.context.go('checks', id);
  }

  /** Has the story be tried first from now on. */
  protected async keep(): Promise<void> {
    const found = this.found();
    if (!found) return;
    const seeds = (this.context.value('seeds') ?? []) as readonly number[];
    const problems = await this.context.set('seeds', [...seeds, found.story]);
    this.refusal.set(problems.map(({ message }) => message).join(' '));
  }
}
