import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { type QuestMove, type QuestWalk, stretch, type QuestQuestions } from '@eager-ember/core';
import type { RulesetJson } from '../../shared/api';
import { CoreClient } from '../../shared/core-client';
import { Editor } from '../../store/editor';

const SEATS = ['north', 'south'] as const;
const WORDS: Readonly<Record<string, string>> = {
  none: 'not begun',
  offered: 'offered',
  done: 'done',
  failed: 'failed',
  declined: 'declined',
  abandoned: 'given up',
};
type Walker = QuestWalk['walkers'][number];
type Goal = QuestWalk['steps'][number]['goals'][number];

/** A quest as a path: where it comes from, its steps with what they wait for, and a walk along it that the core plays. */
@Component({
  selector: 'ee-quest-path',
  templateUrl: './quest-path.html',
  styleUrl: './quest-path.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class QuestPath {
  readonly id = input.required<string>();
  private readonly client = inject(CoreClient);
  private readonly document = inject(Editor).document;
  protected readonly moves = signal<readonly QuestMove[]>([]);
  protected readonly walk = signal<QuestWalk | undefined>(undefined);
  protected readonly failure = signal('');
  protected readonly seat = signal<string>(SEATS[0]);
  protected readonly other = computed(() => SEATS.find((seat) => seat !== this.seat())!);
  /** Where the one who walks stands. */
  protected readonly me = computed<Walker>(() => this.walk()!.walkers.find(({ seat }) => seat === this.seat())!);
  protected readonly on = computed(() => ['active', 'ready', 'done'].includes(this.me().standing));
  protected readonly standing = computed(() => {
    const { standing, again } = this.me();
    return `${WORDS[standing] ?? standing}${again > 0 ? `, again in ${stretch(again)}` : ''}`;
  });
  protected readonly round = (value: number) => String(Math.ceil(value));
  private turn = 0;
  private of = '';

  constructor() {
    effect(() => {
      const [document, id, moves] = [this.document(), this.id(), this.moves()];
      if (document) untracked(() => void this.compute(document, id, moves));
    });
  }

  private async compute(document: RulesetJson, id: string, moves: readonly QuestMove[]): Promise<void> {
    const turn = ++this.turn;
    if (this.of !== id) {
      this.of = id;
      this.seat.set(SEATS[0]);
      // Another quest is walked from its beginning: setting this comes back here.
      if (moves.length > 0) return this.moves.set([]);
    }
    try {
      const walk = await this.client.of<QuestQuestions>('quests').walk(document, id, moves);
      if (turn !== this.turn) return;
      this.walk.set(walk);
      this.failure.set('');
    } catch (error) {
      if (turn === this.turn) this.failure.set(error instanceof Error ? error.message : String(error));
    }
  }

  protected do(move: QuestMove): void {
    // A walk has an end: it is played anew from its beginning at every edit.
    this.moves.update((moves) => [...moves, move].slice(0, 200));
  }

  protected back(): void {
    this.moves.update((moves) => moves.slice(0, -1));
  }

  protected isPassed(step: number): boolean {
    const { standing, step: at } = this.me();
    return standing === 'done' || standing === 'ready' || (standing === 'active' && step < at);
  }

  protected lineOf({ id, line, need }: Goal, { have }: Walker): string {
    return line.replaceAll('{have}', String(have[id] ?? 0)).replaceAll('{need}', String(need));
  }
}
