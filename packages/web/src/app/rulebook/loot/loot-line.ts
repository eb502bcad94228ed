import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { RulesetJson } from '../../shared/api';
import { labelOf } from '../entries';
import { entry } from '../spec/choices';
import { type PartFormat } from '../spec/formats';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecContext } from '../spec/spec-context';
import { ThenList } from '../spec/then-list';

type Json = Readonly<Record<string, unknown>>;

/** What a line can give: the field, what its chip says, and the chapter that it is picked from. */
export const KINDS = [
  { value: 'gives', label: 'amount', chapter: 'attributes' },
  { value: 'pickup', label: 'pickup', chapter: 'pickups' },
  { value: 'effect', label: 'effect', chapter: 'effects' },
  { value: 'ability', label: 'ability use', chapter: 'abilities' },
  { value: 'table', label: 'nested table', chapter: 'loot' },
  { value: 'then', label: 'actions', chapter: '' },
  { value: 'nothing', label: 'nothing', chapter: '' },
] as const;
export type Kind = (typeof KINDS)[number]['value'];

export const counted = (one: Json): boolean => one['kind'] !== 'stat';
export const kindOf = (line: Json): Kind => KINDS.find(({ value }) => line[value] !== undefined)?.value ?? 'nothing';

/** What a line is called: by its own name, or by what it gives. */
export function nameOf(line: Json, document: RulesetJson | undefined): string {
  if (typeof line['label'] === 'string') return line['label'].toLowerCase();
  const kind = KINDS.find(({ value, chapter }) => chapter !== '' && line[value] !== undefined);
  return kind ? labelOf(document, kind.chapter, String(line[kind.value])).toLowerCase() : 'nothing';
}

/** One line of a loot table: its weight, how much of what it gives, and when it is there at all. */
@Component({
  selector: 'ee-loot-line',
  imports: [Part, Sentence, ThenList],
  template: `
    <ee-sentence>
      @if (weighted()) {<span class="weight"><ee-part [at]="at() + '/weight'" [label]="'weight of ' + name()" /></span>}@switch (kind()) { @case ('nothing') {<i class="soft">nothing</i>} @case ('then') {<ee-part [at]="at() + '/label'" [label]="'name of ' + name()" />} @default {@if (line()['label'] !== undefined) {<ee-part [at]="at() + '/label'" [label]="'name of ' + name()" />: }<ee-part [at]="at() + '/quantity'" [label]="'quantity of ' + name()" />&ngsp;<ee-part [at]="at() + '/' + kind()" [format]="formats[kind()]" [label]="'what ' + id() + ' is'" />} }@if (line()['if'] !== undefined) {<span class="if">, if <ee-part [at]="at() + '/if'" [label]="'condition of ' + name()" /><button type="button" class="out" [attr.aria-label]="'No condition for ' + name()" (click)="set('/if', undefined)">×</button></span>} @else {<button type="button" class="more" [attr.aria-label]="'+ if: condition for ' + name()" (click)="set('/if', 'true')">+ if</button>}
    </ee-sentence>
    @if (kind() === 'then') {
      <ee-then [at]="at() + '/then'" />
    }
  `,
  styleUrl: '../world/world.scss',
  styles: `
    :host {
      flex: 1;
      min-width: 0;
    }
    .weight {
      display: inline-block;
      min-width: 46px;
    }
    .more {
      margin-left: 6px;
    }
    .if {
      font-size: 14.5px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LootLine {
  /** Where it stands below the table. */
  readonly at = input.required<string>();
  readonly line = input.required<Json>();
  readonly weighted = input(false);
  private readonly context = inject(SpecContext);
  protected readonly formats: Readonly<Record<string, PartFormat>> = {
    gives: entry('attributes', counted),
    pickup: entry('pickups'),
    effect: entry('effects'),
    ability: entry('abilities'),
    table: entry('loot'),
  };
  protected readonly kind = computed(() => kindOf(this.line()));
  protected readonly id = computed(() => String(this.line()['id']));
  protected readonly name = computed(() => nameOf(this.line(), this.context.document()));

  protected set(field: string, value: unknown): void {
    void this.context.set(this.at() + field, value);
  }
}
