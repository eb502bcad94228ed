import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { type Clause, Clauses } from '../spec/clauses';
import { amount, amountOver, choice, entry, flag, numberFrom, share } from '../spec/formats';
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
  protected readonly amount = amount;
  protected readonly share = share;
  protected readonly over = amountOver(['level']);
  protected readonly levels = numberFrom(2, 500, 'levels', true);
  protected readonly level = numberFrom(1, 500, '', true);
  protected readonly points = numberFrom(1, 100, '', true);
  protected readonly distance = numberFrom(1, 5000);
  protected readonly see = choice({ owner: 'Its owner', team: 'The crew', everyone: 'Everyone', server: 'Only the server' });
  protected readonly carry = flag({ true: 'counts for the next', false: 'is lost' });
  protected readonly among = choice({ crew: 'the crew', everyone: 'everyone' });
  protected readonly how = choice({ equal: 'in equal parts', full: 'to each in full', help: 'by the harm that each did' });
  protected readonly levelsLost = flag({ true: 'and can cost levels', false: 'and costs no level' });
  protected readonly stat = entry('attributes', (one) => one['kind'] === 'stat');
  protected readonly tree = entry('trees');
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
