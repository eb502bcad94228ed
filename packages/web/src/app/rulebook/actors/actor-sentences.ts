import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { entriesOf } from '../entries';
import { Choose, type Way } from '../spec/choose';
import { type Clause, Clauses } from '../spec/clauses';
import { entry } from '../spec/choices';
import { Names } from '../spec/names';
import { Note, NOTE } from '../spec/note';
import { OwnReactions } from '../spec/own-reactions';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecFields } from '../spec/spec-fields';
import { ThenList } from '../spec/then-list';
import { PlacedAt } from '../world/placed';

const NOTHING: Way = { value: 'none', label: 'does nothing by itself', hint: 'or is driven by a seat' };
/** What a behaviour says to begin with. */
const BEGINS: Readonly<Record<string, Readonly<Record<string, unknown>>>> = {
  chase: { within: 240, sight: true },
  flee: { within: 160 },
  follow: {
    points: [
      { x: 200, y: 200 },
      { x: 400, y: 200 },
    ],
  },
};

/** A kind of actor in sentences. */
@Component({
  selector: 'ee-actor-sentences',
  imports: [Part, Sentence, Clauses, Note, Choose, Names, PlacedAt, ThenList, OwnReactions],
  templateUrl: './actor-sentences.html',
  styles: `
    .own {
      display: inline-block;
      margin-right: 14px;
    }
    .out {
      color: var(--soft);
      opacity: 0.55;
    }
    .out:hover,
    .out:focus-visible {
      color: var(--bad);
      opacity: 1;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ActorSentences extends SpecFields {
  protected readonly stat = computed(() => entry('attributes', (e) => e['kind'] === 'stat' && this.carries(String(e['id']))));
  protected readonly pool = computed(() => entry('attributes', (e) => e['kind'] === 'pool' && this.carries(String(e['id']))));
  protected readonly behaviour = computed(() => String((this.context.value('behaviour') as { do?: string } | undefined)?.do ?? 'none'));
  protected readonly ways = computed(() => (this.context.value('kind') === 'player' ? [NOTHING] : [NOTHING, ...this.options('behaviour')]));
  protected readonly points = computed(() => (this.context.value('behaviour/points') as readonly unknown[] | undefined) ?? []);
  protected readonly attributes = computed(() => (this.context.value('attributes') as readonly { attribute: string }[] | undefined) ?? []);
  protected readonly missing = computed(() => entriesOf(this.context.document(), 'attributes').filter(({ id }) => !this.carries(id)));
  protected readonly clauses: readonly Clause[] = [
    { at: 'onSpawn', name: 'when it appears', begins: [] },
    { at: 'onDefeat', name: 'when it falls', begins: [], fits: (e) => e['life'] !== undefined },
    { at: 'respawn', name: 'comes back', begins: { after: '8s' }, fits: (e) => e['life'] !== undefined },
    { at: 'behaviour/leash', name: 'leash', begins: 480, fits: () => this.behaviour() === 'chase' },
    NOTE,
  ];

  private carries(id: string): boolean {
    return this.attributes().some(({ attribute }) => attribute === id);
  }

  protected carry(id: string): void {
    void this.add('attributes', { attribute: id });
  }

  protected drop(index: number): void {
    void this.removeFrom('attributes', index, true);
  }

  protected behave(what: string): void {
    void this.put('behaviour', what === 'none' ? undefined : { do: what, ...BEGINS[what] });
  }

  protected addPoint(): void {
    void this.add<{ readonly x: number; readonly y: number }>('behaviour/points', (points) => {
      const last = points.at(-1);
      return { x: (last?.x ?? 200) + 60, y: last?.y ?? 200 };
    });
  }

  protected dropPoint(index: number): void {
    void this.removeFrom('behaviour/points', index, true);
  }
}
