import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { Choose, type Way } from '../spec/choose';
import { type Clause, Clauses } from '../spec/clauses';
import { Note, NOTE } from '../spec/note';
import { Part } from '../spec/part';
import { PatternSentence } from '../spec/pattern';
import { Sentence } from '../spec/sentence';
import { SpecFields } from '../spec/spec-fields';
import { ThenList } from '../spec/then-list';

const WAITS: readonly Way[] = [
  { value: 'event', label: 'when this has happened', hint: 'an event, counted' },
  { value: 'condition', label: 'when this is so', hint: 'a condition, perhaps for a time' },
  { value: 'action', label: 'by an action alone', hint: 'such as a zone’s or a quest’s' },
];

/** An achievement in sentences. */
@Component({
  selector: 'ee-achievement-sentences',
  imports: [Choose, Clauses, Note, Part, PatternSentence, Sentence, ThenList],
  template: `
    <ee-sentence>
      It is unlocked <ee-choose [ways]="waits" [value]="kind()" label="what it waits for" (chosen)="turn($event)" />@if (kind() === 'event') {{{ ' ' }}<ee-part at="count" label="count" /> {{ (context.value('count') ?? 1) === 1 ? 'time' : 'times' }}: <ee-pattern at="on" />} @else if (kind() === 'condition') {: <ee-part at="if" label="condition" />@if (has('holds')) {, for <ee-part at="holds" label="for how long" />}}.
    </ee-sentence>
    @if (has('text')) {
      <ee-sentence clause="what one reads" at="text">One reads: “<ee-part at="text" label="what one reads" />”</ee-sentence>
    }
    <ee-sentence>It is worth <ee-part at="points" label="points" /> points. <ee-part at="see" label="who is told" capital /> is told. <ee-part at="secret" label="secret" />.</ee-sentence>
    @if (has('hud')) {
      <ee-sentence clause="progress" at="hud">Its progress <ee-part at="hud" label="progress" />.</ee-sentence>
    }
    @if (has('backwards')) {
      <ee-sentence clause="backwards" at="backwards">What was counted before counts: <ee-part at="backwards" label="backwards" />.</ee-sentence>
    }
    <ee-sentence>Then:</ee-sentence>
    <ee-then at="then" />
    <ee-note />
    <ee-clauses [all]="clauses" />
    @if (refusal()) {
      <p class="refusal" role="alert">{{ refusal() }}</p>
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AchievementSentences extends SpecFields {
  protected readonly waits = WAITS;
  protected readonly kind = computed(() => (this.has('if') ? 'condition' : this.has('on') ? 'event' : 'action'));
  protected readonly clauses: readonly Clause[] = [
    { at: 'text', name: 'what one reads', begins: 'What it takes.' },
    { at: 'holds', name: 'for a time', begins: '10s', fits: (entry) => entry['if'] !== undefined },
    { at: 'hud', name: 'progress on the display', begins: true, fits: (entry) => entry['on'] !== undefined },
    { at: 'backwards', name: 'what was counted before', begins: 0 },
    NOTE,
  ];

  protected turn(kind: string): void {
    if (kind === this.kind()) return;
    const [first] = (this.context.document()?.['attributes'] ?? []) as readonly { id: string }[];
    const none = { on: undefined, count: undefined, hud: undefined, backwards: undefined, if: undefined, holds: undefined };
    void this.putAll(
      kind === 'action'
        ? none
        : kind === 'event'
          ? { if: undefined, holds: undefined, on: { on: 'actorDefeated', who: 'source' } }
          : { on: undefined, count: undefined, hud: undefined, if: first ? `${first.id} >= 10` : 'true' },
    );
  }
}
