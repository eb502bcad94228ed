import { ChangeDetectionStrategy, Component, computed, inject, input, resource } from '@angular/core';
import type { EventDescription } from '@eager-ember/core';
import { CoreClient } from '../../shared/core-client';
import { Choose, type Way } from './choose';
import { choice, entry } from './choices';
import { conditionWith, type PartFormat } from './formats';
import { Part } from './part';
import { SpecContext } from './spec-context';

const WHO: Readonly<Record<string, string>> = {
  subject: 'on its bearer',
  source: 'caused by its bearer',
  target: 'aimed at its bearer',
  anyone: 'on anyone',
};

interface Field {
  readonly at: string;
  readonly name: string;
  readonly format: PartFormat;
}

/** An event, and what has to be true of it: the pattern of any concept, as a piece of a sentence. */
@Component({
  selector: 'ee-pattern',
  imports: [Choose, Part],
  template: `
    <ee-choose [ways]="ways()" [value]="on()" label="event" (chosen)="choose($event)" />@for (field of fields(); track field.name) {&ngsp;<ee-part
      [at]="field.at" [format]="field.format" [label]="field.name" [empty]="'any ' + field.name" />}@if (!everybody()) {{{ ' ' }}<ee-part
      [at]="at() + '/who'" [format]="whoFormat" label="party" empty="on its bearer" />}@if (has('where')) {, where
    <ee-part [at]="at() + '/where'" [format]="where()" label="condition" empty="anything" />} @else {&ngsp;<button type="button" class="more" (click)="addWhere()">+ condition</button>}
  `,
  styles: `
    .more {
      color: var(--soft);
      font: 600 12.5px var(--sans);
    }
    .more:hover {
      color: var(--ember);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PatternSentence {
  readonly at = input.required<string>();
  /** It hears of everybody: nothing is said of the part that its bearer plays. */
  readonly everybody = input(false);
  private readonly context = inject(SpecContext);
  private readonly client = inject(CoreClient);
  private readonly events = resource({ loader: () => this.client.events() });
  protected readonly whoFormat = choice(WHO);
  protected readonly on = computed(() => String((this.context.value(this.at()) as { on?: string } | undefined)?.on ?? ''));
  private readonly event = computed<EventDescription | undefined>(() => this.events.value()?.find((event) => event.on === this.on()));
  protected readonly ways = computed<readonly Way[]>(() => (this.events.value() ?? []).map(({ on, label }) => ({ value: on, label })));
  protected readonly where = computed(() => conditionWith(this.event()?.amounts ?? []));
  protected readonly fields = computed<readonly Field[]>(() => {
    const { entries = [], words = [] } = this.event() ?? {};
    return [
      ...entries.map(({ name, chapter }) => ({ at: `${this.at()}/${name}`, name, format: entry(chapter) })),
      ...words.map(({ name, options }) => ({
        at: `${this.at()}/${name}`,
        name: name === 'how' ? 'way' : name,
        format: choice(Object.fromEntries(options.map(({ value, label }) => [value, label]))),
      })),
    ];
  });

  protected has(field: string): boolean {
    return this.context.value(`${this.at()}/${field}`) !== undefined;
  }

  /** Another event: what was asked of the old one is not asked of the new. */
  protected choose(on: string): void {
    if (on !== this.on()) void this.context.set(this.at(), { on });
  }

  /** A condition that always holds, to begin with. */
  protected addWhere(): void {
    const [amount] = this.event()?.amounts ?? [];
    const [attribute] = (this.context.document()?.['attributes'] ?? []) as { id: string }[];
    const begins = amount === undefined ? (attribute ? `${attribute.id} >= 0` : 'true') : `event.${amount} != 0`;
    void this.context.set(`${this.at()}/where`, begins);
  }
}
