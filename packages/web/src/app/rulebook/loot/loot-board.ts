import { effect, inject, Injectable, signal, untracked } from '@angular/core';
import type { LootEvidence, Roller, LootQuestions } from '@eager-ember/core';
import type { RulesetJson } from '../../shared/api';
import { CoreClient } from '../../shared/core-client';
import { Editor } from '../../store/editor';
import { SpecContext } from '../spec/spec-context';

/** The odds of the table that is open: what stands beside its lines, and what is asked of them on the other page. */
@Injectable()
export class LootBoard {
  private readonly client = inject(CoreClient);
  private readonly context = inject(SpecContext);
  private readonly document = inject(Editor).document;
  readonly now = signal<LootEvidence | undefined>(undefined);
  /** What it was before the last edit. */
  readonly before = signal<LootEvidence | undefined>(undefined);
  readonly failure = signal('');
  /** Whom the chances are for, and what is waited for. */
  readonly roller = signal<Roller>({});
  readonly thing = signal<string | undefined>(undefined);
  private turn = 0;
  private of = '';
  private asked = '';

  constructor() {
    effect(() => {
      const [document, chapter, id] = [this.document(), this.context.chapter(), this.context.id()];
      const [roller, thing] = [this.roller(), this.thing()];
      if (document && chapter === 'loot' && id !== '') untracked(() => void this.compute(document, id, roller, thing));
    });
  }

  private async compute(document: RulesetJson, id: string, roller: Roller, thing: string | undefined): Promise<void> {
    const turn = ++this.turn;
    if (this.of !== id) {
      this.of = id;
      this.now.set(undefined);
      this.before.set(undefined);
      // Setting these comes back here.
      if (thing !== undefined || Object.keys(roller).length > 0) {
        this.thing.set(undefined);
        return this.roller.set({});
      }
    }
    try {
      const next = await this.client.of<LootQuestions>('loot').odds(document, id, roller, thing);
      if (turn !== this.turn) return;
      const question = JSON.stringify([id, roller, thing]);
      // Only an edit leaves a ghost: another question has another answer.
      if (question === this.asked && this.now() && JSON.stringify(this.now()) !== JSON.stringify(next)) this.before.set(this.now());
      else if (question !== this.asked) this.before.set(undefined);
      this.asked = question;
      this.now.set(next);
      this.failure.set('');
    } catch (error) {
      if (turn === this.turn) this.failure.set(error instanceof Error ? error.message : String(error));
    }
  }

  /** Asks for one who has so much of something that the chances follow. */
  read(of: 'attributes' | 'levels', id: string, value: number): void {
    this.roller.update((roller) => ({ ...roller, [of]: { ...roller[of], [id]: value } }));
  }
}
