import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { entriesOf } from '../entries';
import { Choose, type Way } from '../spec/choose';
import { type Clause, Clauses } from '../spec/clauses';
import { amount, choice, duration, entry, flag, numberFrom, type PartFormat, start, who } from '../spec/formats';
import { Names } from '../spec/names';
import { Note, NOTE } from '../spec/note';
import { OwnReactions } from '../spec/own-reactions';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecFields } from '../spec/spec-fields';
import { ThenList } from '../spec/then-list';
import { PlacedAt } from '../world/placed';

const BEHAVIOURS: readonly Way[] = [
  { value: 'none', label: 'does nothing by itself', hint: 'or is driven by a seat' },
  { value: 'stand', label: 'stands', hint: 'and uses what it has on whom that reaches' },
  { value: 'wander', label: 'wanders', hint: 'about its home' },
  { value: 'follow', label: 'goes along points', hint: 'round, or there and back' },
  { value: 'chase', label: 'chases', hint: 'and uses what it has' },
  { value: 'flee', label: 'flees', hint: 'from who comes near' },
];
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

/** A radius: a number, or the stat that says it. */
const radius: PartFormat = {
  ...amount,
  hint: 'A number from 1 to 200, or the stat that says it.',
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
  protected readonly start = start;
  protected readonly radius = radius;
  protected readonly duration = duration;
  protected readonly behaviours = BEHAVIOURS;
  protected readonly kinds = choice({ player: 'player', foe: 'foe', character: 'character', prop: 'prop' });
  protected readonly who = who;
  protected readonly sight = flag({ true: 'in sight only', false: 'also behind walls' });
  protected readonly turn = choice({ round: 'and round again', back: 'and back again' });
  protected readonly returns = choice({ start: 'where it belongs', place: 'where it fell' });
  protected readonly distance = numberFrom(1, 5000);
  protected readonly coordinate = numberFrom(-10000, 10000);
  protected readonly stat = computed(() => entry('attributes', (e) => e['kind'] === 'stat' && this.carries(String(e['id']))));
  protected readonly pool = computed(() => entry('attributes', (e) => e['kind'] === 'pool' && this.carries(String(e['id']))));
  protected readonly behaviour = computed(() => String((this.context.value('behaviour') as { do?: string } | undefined)?.do ?? 'none'));
  protected readonly ways = computed(() => (this.context.value('kind') === 'player' ? BEHAVIOURS.slice(0, 1) : BEHAVIOURS));
  protected readonly points = computed(() => (this.context.value('behaviour/points') as readonly unknown[] | undefined) ?? []);
  protected readonly attributes = computed(() => (this.context.value('attributes') as readonly { attribute: string }[] | undefined) ?? []);
  protected readonly missing = computed(() => entriesOf(this.context.document(), 'attributes').filter(({ id }) => !this.carries(id)));
  protected readonly starting = entry('attributes');
  protected readonly container = entry('containers');
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
