import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import type { Operation } from 'fast-json-patch';
import { entriesOf } from '../entries';
import { Choose } from '../spec/choose';
import { type Clause, Clauses } from '../spec/clauses';
import { Names } from '../spec/names';
import { Note, NOTE } from '../spec/note';
import { OwnReactions } from '../spec/own-reactions';
import { Part } from '../spec/part';
import { PatternSentence } from '../spec/pattern';
import { Sentence } from '../spec/sentence';
import { SpecFields } from '../spec/spec-fields';
import { ThenList } from '../spec/then-list';

interface Modifier {
  readonly attribute: string;
  readonly operation: string;
  readonly amount: unknown;
}

/** What the most counts, by stacking mode. */
const MOST: Readonly<Record<string, string>> = { separate: 'at once', refresh: 'stacks', extend: 'lengths together', strongest: 'at once' };

/** An effect in sentences. */
@Component({
  selector: 'ee-effect-sentences',
  imports: [Part, Sentence, Clauses, Note, Choose, Names, PatternSentence, ThenList, OwnReactions],
  templateUrl: './effect-sentences.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EffectSentences extends SpecFields {
  protected readonly lifetime = computed(() => String(this.context.value('lifetime') ?? 'timed'));
  protected readonly stacking = computed(() => String(this.context.value('stacking') ?? 'separate'));
  protected readonly modifiers = computed(() => (this.context.value('modifiers') as readonly Modifier[] | undefined) ?? []);
  protected readonly ends = computed(() => [...((this.context.value('onEnd') as readonly unknown[] | undefined) ?? []).keys()]);
  protected readonly stats = computed(() => entriesOf(this.context.document(), 'attributes').filter((e) => e['kind'] === 'stat'));
  protected readonly statuses = computed(() => entriesOf(this.context.document(), 'statuses'));
  protected readonly stays = computed(() => this.lifetime() !== 'instant');
  protected readonly mostOf = computed(() => MOST[this.stacking()]);
  protected readonly clauses: readonly Clause[] = [
    { at: 'grants', name: 'status', begins: [], fits: (e) => e['lifetime'] !== 'instant' && this.statuses().length > 0 },
    { at: 'periodic', name: 'again and again', begins: { every: '1s', then: [] }, fits: (e) => e['lifetime'] !== 'instant' },
    { at: 'onStart', name: 'when it starts', begins: [] },
    { at: 'onStack', name: 'when it is renewed', begins: [], fits: (e) => e['stacking'] === 'refresh' || e['stacking'] === 'extend' },
    { at: 'blocked', name: 'kept off by', begins: { statuses: [], effects: [] } },
    { at: 'ends', name: 'ends others', begins: { statuses: [], effects: [] } },
    { at: 'lasts', name: 'at most for a time', begins: '10s', fits: (e) => e['lifetime'] === 'untilUsed' },
    { at: 'strength', name: 'strength', begins: 1, fits: (e) => e['stacking'] === 'strongest' },
    NOTE,
  ];

  /** Another lifetime: what it can't have goes along, what it needs begins as something. */
  protected live(lifetime: string): Promise<void> {
    const needs =
      { timed: { lasts: '5s' }, lasting: {}, instant: {}, untilUsed: { used: { times: 1, by: this.someEvent() } } }[lifetime] ?? {};
    const never = {
      timed: ['used'],
      lasting: ['lasts', 'used'],
      untilUsed: ['lasts'],
      instant: ['lasts', 'used', 'modifiers', 'grants', 'periodic', 'onEnd'],
    }[lifetime];
    return this.become('lifetime', lifetime, never ?? [], needs);
  }

  /** Being hurt uses most things up. */
  private someEvent(): Record<string, unknown> {
    const [pool] = entriesOf(this.context.document(), 'attributes').filter((e) => e['kind'] === 'pool');
    return { on: 'attributeChanged', ...(pool && { attribute: pool.id }), how: 'hurt' };
  }

  protected stack(stacking: string): Promise<void> {
    const never = [
      ...(stacking === 'once' ? ['most'] : []),
      ...(stacking === 'strongest' ? [] : ['strength']),
      ...(stacking === 'refresh' || stacking === 'extend' ? [] : ['onStack']),
    ];
    return this.become('stacking', stacking, never, {});
  }

  private async become(field: string, value: string, never: readonly string[], needs: Readonly<Record<string, unknown>>): Promise<void> {
    const problems = await this.context.change(`${this.context.entry()?.label}: ${field} ${value}`, (base): readonly Operation[] => [
      ...never.filter((gone) => this.has(gone)).map((gone) => ({ op: 'remove' as const, path: `${base}/${gone}` })),
      { op: 'add', path: `${base}/${field}`, value },
      ...Object.entries(needs)
        .filter(([needed]) => !this.has(needed))
        .map(([needed, begins]) => ({ op: 'add' as const, path: `${base}/${needed}`, value: begins })),
    ]);
    this.told(problems);
  }

  protected addModifier(): void {
    void this.add('modifiers', { attribute: this.stats()[0].id, operation: 'percent', amount: 10 });
  }

  protected addEnd(): void {
    void this.add('onEnd', { reason: 'any', then: [] });
  }
}
