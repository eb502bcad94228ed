import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import type { Operation } from 'fast-json-patch';
import { type EntryJson, entriesOf } from '../entries';
import { MANY, Pick } from './pick';
import { SpecContext } from './spec-context';

/** Which kinds of actor have this attribute or ability. */
@Component({
  selector: 'ee-carriers',
  imports: [Pick],
  template: `
    @if (types().length > 0) {
      <p>
        <span class="soft">{{ says() }}</span>
        @for (type of listed(); track type.id) {
          <button type="button" role="checkbox" [attr.aria-checked]="type.has" (click)="toggle(type.id, type.has)">{{ type.has ? '☑' : '☐' }} {{ type.label }}</button>
        }
        @if (others().length > 0) {
          <ee-pick [options]="others()" label="Give it to another kind of actor" [says]="'+ one of ' + others().length + (listed().length > 0 ? ' others' : '')" (picked)="toggle($event, false)" />
        }
      </p>
    }
    @if (types().length === 0) {
      <p><span class="soft">Nobody is there to carry it.</span> <button type="button" class="chip" (click)="makePlayer()">make a player who does</button></p>
    }
    @if (refusal()) {
      <p class="refusal" role="alert">{{ refusal() }}</p>
    }
  `,
  styles: `
    p {
      display: flex;
      flex-wrap: wrap;
      gap: 0 10px;
      margin: 3px 0 6px;
      font-size: 12.5px;
    }
    button[aria-checked='true'] {
      color: var(--ember);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Carriers {
  /** What the kinds of actor that are ticked have to do with it. */
  readonly says = input('Carried by');
  private readonly context = inject(SpecContext);
  protected readonly refusal = signal('');
  protected readonly types = computed(() =>
    entriesOf(this.context.document(), 'actors').map((type) => ({
      id: type.id,
      label: type.label,
      has: placeIn(type, this.context.chapter(), this.context.id()) >= 0,
    })),
  );

  /** Where there are many, those that have it are listed, and another is picked by its name. */
  protected readonly listed = computed(() => this.types().filter(({ has }) => has || this.types().length <= MANY));
  protected readonly others = computed(() => (this.types().length <= MANY ? [] : this.types().filter(({ has }) => !has)));

  /** A ruleset from nothing has no kind of actor yet; its first is a player. */
  protected async makePlayer(): Promise<void> {
    const [chapter, id] = [this.context.chapter(), this.context.id()];
    const carries = { [chapter]: [chapter === 'attributes' ? { attribute: id } : id] };
    const player = { id: 'player', label: 'Player', kind: 'player', ...carries };
    const problems = await this.context.change('new player', () => [{ op: 'add', path: '/actors', value: [player] }]);
    this.refusal.set(problems.map((p) => p.message).join(' '));
  }

  protected async toggle(type: string, has: boolean): Promise<void> {
    const [chapter, id] = [this.context.chapter(), this.context.id()];
    const label = `${this.context.entry()?.label ?? id}: ${has ? 'taken from' : 'given to'} ${type}`;
    const problems = await this.context.change(label, (_, document): readonly Operation[] => {
      const types = entriesOf(document, 'actors');
      const index = types.findIndex((t) => t.id === type);
      if (SINGLE[chapter]) {
        const path = `/actors/${index}/${SINGLE[chapter]}`;
        return [has ? { op: 'remove', path } : { op: 'add', path, value: id }];
      }
      const at = placeIn(types[index], chapter, id);
      if (has) return at < 0 ? [] : [{ op: 'remove', path: `/actors/${index}/${chapter}/${at}` }];
      const fresh = chapter === 'attributes' ? { attribute: id } : id;
      return types[index][chapter] === undefined
        ? [{ op: 'add', path: `/actors/${index}/${chapter}`, value: [fresh] }]
        : [{ op: 'add', path: `/actors/${index}/${chapter}/-`, value: fresh }];
    });
    this.refusal.set(problems.map((p) => p.message).join(' '));
  }
}

/** Chapters of which an actor has one entry, with the field that names it. */
const SINGLE: Readonly<Record<string, string>> = { containers: 'container' };

function placeIn(type: EntryJson, chapter: string, id: string): number {
  if (SINGLE[chapter]) return type[SINGLE[chapter]] === id ? 0 : -1;
  const list = (type[chapter] as readonly (string | { attribute: string })[] | undefined) ?? [];
  return list.findIndex((item) => (typeof item === 'string' ? item : item.attribute) === id);
}
