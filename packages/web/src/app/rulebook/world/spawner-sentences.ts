import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecFields } from '../spec/spec-fields';
import { Note, NOTE } from '../spec/note';
import { type Clause, Clauses } from '../spec/clauses';
import { entriesOf } from '../entries';
import { Choose, type Way } from '../spec/choose';
import { PatternSentence } from '../spec/pattern';
import { PlacedAt } from './placed';

const KINDS: readonly Way[] = [
  { value: 'actor', label: 'the actor', hint: 'a foe, a character, a prop' },
  { value: 'pickup', label: 'the pickup', hint: 'something to be taken' },
  { value: 'nothing', label: 'nothing', hint: 'as likely as its weight' },
];

/** A spawner in sentences. */
@Component({
  selector: 'ee-spawner-sentences',
  imports: [Part, Sentence, Clauses, Note, Choose, PatternSentence, PlacedAt],
  templateUrl: './spawner-sentences.html',
  styleUrl: './world.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SpawnerSentences extends SpecFields {
  protected readonly kinds = KINDS;
  protected readonly when = computed(() => String((this.context.value('when') as { is?: string } | undefined)?.is ?? 'every'));
  protected readonly clauses: readonly Clause[] = [
    { at: 'most', name: 'at most', begins: 3 },
    { at: 'near', name: 'only while a player is near', begins: 300 },
    { at: 'spread', name: 'spread', begins: 30 },
    NOTE,
  ];

  protected kindOf(one: Readonly<Record<string, unknown>>): string {
    return 'actor' in one ? 'actor' : 'pickup' in one ? 'pickup' : 'nothing';
  }

  protected turn(index: number, kind: string): void {
    const { weight } = this.list('what')[index];
    const first = (chapter: string) =>
      entriesOf(this.context.document(), chapter).find((one) => chapter !== 'actors' || one['kind'] !== 'player')?.id;
    const id = kind === 'nothing' ? undefined : first(kind === 'actor' ? 'actors' : 'pickups');
    if (kind !== 'nothing' && id === undefined) return this.refusal.set(`There is no ${kind} yet.`);
    void this.put(`what/${index}`, kind === 'nothing' ? { weight } : { weight, [kind]: id });
  }

  /** How likely one is, where all weights are numbers. */
  protected odds(index: number): string {
    const weights = this.list('what').map((one) => one['weight']);
    const sum = weights.reduce<number>((all, weight) => all + (typeof weight === 'number' ? Math.max(0, weight) : NaN), 0);
    const share = (100 * Number(weights[index])) / sum;
    return Number.isFinite(share) ? `${Number(share.toFixed(1))} %` : '';
  }

  protected begin(is: string): void {
    const begins: Readonly<Record<string, unknown>> = {
      every: { is, time: '20s' },
      wave: { is, pause: '5s' },
      on: { is, event: { on: 'zoneEntered' } },
    };
    void this.put('when', begins[is]);
  }
}
