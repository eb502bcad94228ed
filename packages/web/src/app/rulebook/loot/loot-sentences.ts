import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { percent } from '@eager-ember/core';
import { entriesOf, freshId } from '../entries';
import { FileExchange } from '../file-exchange';
import { LOOT_FILES } from './loot-files';
import { type Clause, Clauses } from '../spec/clauses';
import { choice } from '../spec/choices';
import { type PartFormat } from '../spec/formats';
import { Note, NOTE } from '../spec/note';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecFields } from '../spec/spec-fields';
import { counted, kindOf, KINDS, type Kind, LootLine, nameOf } from './loot-line';
import { LootBoard } from './loot-board';

type Json = Readonly<Record<string, unknown>>;

/** A loot table in sentences, with the real chance of each line beside its weight. */
@Component({
  selector: 'ee-loot-sentences',
  imports: [Clauses, LootLine, Note, Part, Sentence],
  templateUrl: './loot-sentences.html',
  styleUrls: ['../world/world.scss', './loot-sentences.scss'],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LootSentences extends SpecFields {
  private readonly dialog = inject(MatDialog);
  private readonly board = inject(LootBoard);
  protected readonly kinds = KINDS;
  protected readonly one = computed(() => this.context.value('rolls') === undefined || this.context.value('rolls') === 1);
  /** The lines of this table, by their names. */
  protected readonly entries = computed((): PartFormat => {
    const all = this.list('entries').map((line) => ({ id: String(line['id']), label: this.name(line) }));
    return choice(Object.fromEntries(all.map(({ id, label }) => [id, label])));
  });
  protected readonly clauses = computed((): readonly Clause[] => {
    const first = this.list('entries').find((line) => kindOf(line) !== 'nothing');
    return [...(first ? [{ at: 'streak', name: 'streak breaker', begins: { entry: first['id'], after: 10, adds: 1 } }] : []), NOTE];
  });

  protected name(line: Json): string {
    return nameOf(line, this.context.document());
  }

  protected number(at: string): number {
    return Number(this.context.value(at) ?? 0);
  }

  protected isThere(index: number): boolean {
    return this.board.now()?.always[index]?.there !== false;
  }

  protected chance(index: number): string {
    const line = this.board.now()?.lines[index];
    return line ? percent(line.chance) : '';
  }

  /** What it was before the last edit, where that was another. */
  protected former(index: number): string {
    const [now, before] = [this.board.now()?.lines, this.board.before()?.lines];
    const was = before?.find(({ id }) => id === now?.[index]?.id);
    return was && now && percent(was.chance) !== percent(now[index].chance) ? percent(was.chance) : '';
  }

  protected drawn(index: number): string {
    const line = this.board.now()?.lines[index];
    return line ? `${percent(line.chance)} at each roll, ${percent(line.drawn)} at least once at an opening` : '';
  }

  /** A line that goes by another name than those that are there. */
  private freshLine(kind: Kind, there: readonly Json[]): Json | undefined {
    const ids = [...there, ...this.list('entries'), ...this.list('always')].map((line) => String(line['id']));
    const known = KINDS.find(({ value }) => value === kind)!;
    if (kind === 'nothing') return { id: freshId('nothing', ids) };
    if (kind === 'then') return { id: freshId('something', ids), label: 'Something', then: [this.firstAction()] };
    const own = this.context.id();
    const first = entriesOf(this.context.document(), known.chapter).find((one) => (kind === 'gives' ? counted(one) : one.id !== own));
    return first && { id: freshId(first.id, ids), [kind]: first.id };
  }

  private firstAction(): Json {
    const [first] = entriesOf(this.context.document(), 'attributes').filter(counted);
    return first ? { do: 'give', attribute: first.id, amount: 1 } : { do: 'flourish', text: 'Found' };
  }

  protected addEntry(kind: Kind): void {
    if (!this.freshLine(kind, []))
      return this.refusal.set(`There is no ${KINDS.find(({ value }) => value === kind)!.label} yet that it could give.`);
    void this.add<Json>('entries', (lines) => ({ ...this.freshLine(kind, lines), weight: 1 }));
  }

  protected addAlways(): void {
    if (!this.freshLine('gives', [])) return this.refusal.set('There is nothing yet that it could give.');
    void this.add<Json>('always', (lines) => this.freshLine('gives', lines)!);
  }

  protected file(): void {
    this.dialog.open(FileExchange, { data: LOOT_FILES });
  }
}
