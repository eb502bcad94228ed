import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecFields } from '../spec/spec-fields';
import { ThenList } from '../spec/then-list';
import { Note, NOTE } from '../spec/note';
import { type Clause, Clauses } from '../spec/clauses';
import { choice } from '../spec/choices';
import { type PartFormat } from '../spec/formats';

interface Choosing {
  readonly text: string;
  readonly next?: string;
  readonly [field: string]: unknown;
}

interface LineJson extends Choosing {
  readonly id: string;
  readonly choices?: readonly Choosing[];
}

/** A dialogue in sentences. */
@Component({
  selector: 'ee-dialogue-sentences',
  imports: [Part, Sentence, Clauses, Note, ThenList],
  templateUrl: './dialogue-sentences.html',
  styleUrl: './world.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DialogueSentences extends SpecFields {
  protected readonly clauses: readonly Clause[] = [{ at: 'voice', name: 'voice', begins: 'A voice' }, NOTE];
  /** Where a line or a choice can go on: at another line, or nowhere. */
  protected readonly next = computed<PartFormat>(() => {
    const lines = this.list<{ id: string; text: string }>('lines');
    return choice(
      Object.fromEntries([
        ...lines.map(({ id, text: says }, i) => [id, `line ${i + 1}: ${says.slice(0, 40)}`] as const),
        ['end', 'nothing: it is over'] as const,
      ]),
    );
  });
  protected readonly lines = computed(() => this.list<LineJson>('lines'));

  protected addLine(): void {
    void this.addNamed('lines', 'line', { text: 'And?', for: '2s' });
  }

  /** Takes a line out; what led to it goes on at the one behind it. */
  protected removeLine(index: number): void {
    const gone = this.lines()[index].id;
    const without = ({ next, ...one }: Choosing) => (next === undefined || next === gone ? one : { ...one, next });
    void this.revise<readonly LineJson[]>('lines', (lines) =>
      lines
        .filter(({ id }) => id !== gone)
        .map((line) => ({ ...without(line), ...(line.choices && { choices: line.choices.map(without) }) })),
    );
  }
}
