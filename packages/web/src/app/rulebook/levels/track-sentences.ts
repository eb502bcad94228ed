import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { type Clause, Clauses } from '../spec/clauses';
import { Note, NOTE } from '../spec/note';
import { Part } from '../spec/part';
import { PatternSentence } from '../spec/pattern';
import { Sentence } from '../spec/sentence';
import { SpecFields } from '../spec/spec-fields';
import { ThenList } from '../spec/then-list';
import { entriesOf } from '../entries';
import { FileExchange } from '../file-exchange';
import { levelFiles } from './level-files';

/** A level track in sentences. */
@Component({
  selector: 'ee-track-sentences',
  imports: [Part, Sentence, Clauses, Note, PatternSentence, ThenList],
  templateUrl: './track-sentences.html',
  styleUrl: '../world/world.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TrackSentences extends SpecFields {
  private readonly dialog = inject(MatDialog);
  /** A table of amounts stands in the place of a formula: it comes from a file, and is seen beside. */
  protected readonly table = computed(() => {
    const needs = this.context.value('needs');
    return Array.isArray(needs) ? needs.length : 0;
  });
  protected readonly clauses: readonly Clause[] = [
    { at: 'loss', name: 'a fall costs', begins: { share: 0.1 } },
    { at: 'carry', name: 'what is left over', begins: false },
    { at: 'see', name: 'who sees it', begins: 'everyone' },
    NOTE,
  ];

  protected addSource(): void {
    void this.add('sources', { on: { on: 'actorDefeated', who: 'source' }, amount: 10 });
  }

  protected addPoints(): void {
    const [first] = entriesOf(this.context.document(), 'trees');
    if (!first) return this.refusal.set('There is no skill tree yet: begin one under Skills.');
    void this.add('points', { tree: first.id, each: 1 });
  }

  protected addGrowth(): void {
    const first = entriesOf(this.context.document(), 'attributes').find((one) => one['kind'] === 'stat');
    if (!first) return this.refusal.set('There is no stat that could grow yet.');
    void this.add('growth', { attribute: first.id, amount: '5 * (level - 1)' });
  }

  protected file(): void {
    this.dialog.open(FileExchange, { data: levelFiles(this.context.id()) });
  }
}
