import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { CHAPTERS } from '../rulebook/chapters';
import { entriesOf, labelOf } from '../rulebook/entries';
import { lower, type PartFormat } from '../rulebook/spec/formats';
import { Part } from '../rulebook/spec/part';
import { SpecFields } from '../rulebook/spec/spec-fields';
import type { RulesetJson } from '../shared/api';

type Origin = Readonly<Record<string, string>>;

/** Chapters whose entries bring something about: not those that only try others out. */
const ACTING = CHAPTERS.filter(({ workplace }) => !workplace);
/** Parts of a ruleset that stand once and act as well. */
const PARTS = ['economy', 'arena'];

const titleOf = (chapter: string) => (CHAPTERS.find(({ key }) => key === chapter)?.title ?? chapter).toLowerCase();

function sayOrigin(origin: Origin | undefined, document: RulesetJson | undefined): string {
  const [[key, id] = ['', '']] = Object.entries(origin ?? {});
  if (key === 'anyOf') return `anything of ${titleOf(id)}`;
  const chapter = CHAPTERS.find((one) => one.key === key);
  return chapter ? `${lower(labelOf(document, key, id))} (${chapter.one})` : `${id} (${key})`;
}

const ways = (document: RulesetJson | undefined): readonly Origin[] => [
  ...[...ACTING.map(({ key }) => key), ...PARTS].map((key) => ({ anyOf: key })),
  ...ACTING.flatMap(({ key }) => entriesOf(document, key).map(({ id }) => ({ [key]: id }))),
];

/** A rule that brings something into the game, or takes it out: an entry, or anything of a part of the ruleset. */
const origin: PartFormat = {
  show: (value, document) => ({ text: sayOrigin(value as Origin, document), look: 'name' }),
  edit: () => '',
  read: (typed, document) => {
    const wanted = typed.trim().toLowerCase();
    const all = ways(document);
    const found =
      all.find((one) => sayOrigin(one, document).toLowerCase() === wanted) ??
      all.find((one) => sayOrigin(one, document).toLowerCase().startsWith(wanted));
    return found && wanted !== '' ? { value: found } : { error: 'Pick a rule, such as “anything of quests”.' };
  },
  choices: (typed, document) =>
    ways(document)
      .map((one) => sayOrigin(one, document))
      .filter((text) => text.toLowerCase().includes(typed.trim().toLowerCase()))
      .slice(0, 30)
      .map((text) => ({ text, label: text, hint: '' })),
  closed: true,
};

/** Rules that bring something in, or take it out, as a list within a sentence. */
@Component({
  selector: 'ee-origins',
  imports: [Part],
  template: `
    @for (one of all(); track $index) {{{ $first ? '' : ', ' }}<ee-part [at]="at() + '/' + $index" [format]="origin" [label]="label()" /><button type="button" class="drop" [attr.aria-label]="'Take out a ' + label()" (click)="removeFrom(at(), $index)">×</button>}
    @if (all().length === 0) {<span class="soft">nothing</span>}
    <button type="button" class="more" [attr.aria-label]="'Add a ' + label()" (click)="add(at(), begins)">+</button>
  `,
  styleUrl: './lines.scss',
  styles: ':host { display: inline; }',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Origins extends SpecFields {
  readonly at = input.required<string>();
  /** What one of them is called. */
  readonly label = input.required<string>();
  protected readonly origin = origin;
  protected readonly begins = { anyOf: 'quests' };
  protected readonly all = computed(() => this.list(this.at()));
}
