import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { entriesOf } from '../entries';
import { type Clause, Clauses } from '../spec/clauses';
import { Names } from '../spec/names';
import { Note, NOTE } from '../spec/note';
import { Part } from '../spec/part';
import { PatternSentence } from '../spec/pattern';
import { Sentence } from '../spec/sentence';
import { SpecContext } from '../spec/spec-context';

/** What can be allowed, in the words of the sentence. */
const MAY = [
  { what: 'move', says: 'move' },
  { what: 'use', says: 'begin an ability' },
] as const;

/** A state of an actor in sentences. */
@Component({
  selector: 'ee-state-sentences',
  imports: [Part, Sentence, Clauses, Note, Names, PatternSentence],
  template: `
    <ee-sentence>
      Who is in it may
      @for (may of allowed(); track may.what) {
        <button type="button" class="may" role="checkbox" [attr.aria-checked]="may.is" (click)="toggle(may.what)">{{ may.is ? '☑' : '☐' }} {{ may.says }}</button>
      }
    </ee-sentence>
    @if (has('while')) {
      <ee-sentence clause="while" at="while">It holds while its actor is <ee-part at="while" label="status" />.</ee-sentence>
    }
    @if (has('lasts')) {
      <ee-sentence clause="for a time" at="lasts">It ends by itself after <ee-part at="lasts" label="how long it lasts" />.</ee-sentence>
    }
    @if (has('ends')) {
      <ee-sentence clause="on an event" at="ends">It ends when <ee-pattern at="ends" />.</ee-sentence>
    }
    @if (has('from')) {
      <ee-sentence clause="entered from" at="from">It can be entered only from <ee-names at="from" chapter="states" label="state before" />.</ee-sentence>
    }
    @if (has('into')) {
      <ee-sentence clause="left for" at="into">Before it ends, only <ee-names at="into" chapter="states" label="state after" /> may take its place.</ee-sentence>
    }
    <ee-sentence>Seen by <ee-part at="see" label="seen by" />.</ee-sentence>
    <ee-note />
    <ee-clauses [all]="clauses" />
  `,
  styles: `
    .may {
      margin-right: 12px;
      font: 15px var(--sans);
    }
    .may[aria-checked='true'] {
      color: var(--ember);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StateSentences {
  private readonly context = inject(SpecContext);
  private readonly allows = computed(() => (this.context.value('allows') as readonly string[] | undefined) ?? []);
  protected readonly allowed = computed(() => MAY.map((may) => ({ ...may, is: this.allows().includes(may.what) })));
  /** What an actor is when nothing else holds has no end of its own. */
  private readonly remains = computed(() => ['idle', 'moving'].includes(this.context.id()));
  protected readonly clauses: readonly Clause[] = [
    {
      at: 'while',
      name: 'while',
      begins: entriesOf(this.context.document(), 'statuses')[0]?.id,
      fits: () => !this.remains() && entriesOf(this.context.document(), 'statuses').length > 0,
    },
    { at: 'lasts', name: 'for a time', begins: '3s', fits: () => !this.remains() },
    { at: 'ends', name: 'on an event', begins: { on: 'attributeChanged', how: 'hurt' }, fits: () => !this.remains() },
    { at: 'from', name: 'entered from', begins: ['idle', 'moving'] },
    { at: 'into', name: 'left for', begins: ['down'] },
    NOTE,
  ];

  protected has(at: string): boolean {
    return this.context.value(at) !== undefined;
  }

  protected toggle(what: string): void {
    const allow = !this.allows().includes(what);
    void this.context.revise('allows', (now) => {
      const others = ((now as readonly string[] | undefined) ?? []).filter((other) => other !== what);
      return allow ? [...others, what] : others;
    });
  }
}
