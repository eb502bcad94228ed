import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { entriesOf, labelOf } from '../rulebook/entries';
import { entry } from '../rulebook/spec/choices';
import { amount, lower, numberFrom } from '../rulebook/spec/formats';
import { Part } from '../rulebook/spec/part';
import { Sentence } from '../rulebook/spec/sentence';
import { ahead } from './check-formats';
import { CheckLine } from './check-line';
import { Verdict } from './verdict';

const NAME = /^[A-Za-z][A-Za-z0-9 _-]{0,23}$/;
/** Where a sentence of a check names somebody. */
const NAMING = ['of', 'seat', 'on', 'from', 'by', 'joins', 'leaves', 'returns', 'toldTo'];

/** A sentence with another name for somebody. */
const calledOtherwise = (line: object, from: string, to: string): object =>
  Object.fromEntries(
    Object.entries(line).map(([key, value]: [string, unknown]) => [key, NAMING.includes(key) && value === from ? to : value]),
  );

/** An actor that a check is given, as a sentence. */
@Component({
  selector: 'ee-given-line',
  imports: [MatMenuModule, Part, Sentence, Verdict],
  templateUrl: './given-line.html',
  styleUrl: './lines.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class GivenLine extends CheckLine {
  protected readonly actor = this.orRow(ahead(entry('actors')));
  protected readonly team = this.orRow(ahead(entry('teams')));
  protected readonly attribute = this.orRow(ahead(entry('attributes')));
  protected readonly effect = this.orRow(ahead(entry('effects')));
  protected readonly status = this.orRow(ahead(entry('statuses')));
  protected readonly amount = this.orRow(amount);
  protected readonly place = this.orRow(numberFrom({ least: -1_000_000_000, most: 1_000_000_000 }));
  protected readonly values = computed(
    () => (this.value()['with'] ?? []) as readonly { readonly attribute: string; readonly atMost?: unknown }[],
  );
  protected readonly effects = computed(() => (this.value()['effects'] ?? []) as readonly string[]);
  protected readonly statuses = computed(() => (this.value()['statuses'] ?? []) as readonly string[]);
  protected readonly placed = computed(() => this.value()['x'] !== undefined || this.value()['y'] !== undefined);

  protected readonly own = computed(() => String(this.value()['name'] ?? ''));
  protected readonly nameWidth = computed(() => this.own().length + 1);

  /** Another name: whatever the check says of who had it follows. */
  protected rename(box: HTMLInputElement): void {
    const [from, to] = [this.own(), box.value.trim()];
    if (to === from || !NAME.test(to)) return void (box.value = from);
    const list = (at: string, item: (one: object, i: number) => object) => this.list<object>(at).map(item);
    const given = list('given', (one, i) => (`given/${i}` === this.at() ? { ...one, name: to } : one));
    const stages = list('stages', (stage) =>
      Object.fromEntries(
        Object.entries(stage).map(([key, lines]) => [key, (lines as object[]).map((line) => calledOtherwise(line, from, to))]),
      ),
    );
    const renamed = ['always', 'may'].filter((at) => this.has(at)).map((at) => [at, list(at, (line) => calledOtherwise(line, from, to))]);
    void this.putAll({ given, ...(this.has('stages') && { stages }), ...(Object.fromEntries(renamed) as Record<string, unknown>) });
  }

  protected nameOf(attribute: string): string {
    return lower(labelOf(this.context.document(), 'attributes', attribute));
  }

  private firstOf(chapter: string, otherwise: string): string {
    return entriesOf(this.context.document(), chapter)[0]?.id ?? otherwise;
  }

  protected addValue(): void {
    void this.add(`${this.at()}/with`, { attribute: this.firstOf('attributes', 'health'), value: 1 });
  }

  protected addTo(list: 'effects' | 'statuses'): void {
    void this.add(`${this.at()}/${list}`, this.firstOf(list, list === 'effects' ? 'effect' : 'status'));
  }

  protected putSomewhere(): void {
    void this.revise<Record<string, unknown>>(this.at(), (now) => ({ ...now, x: 400, y: 400 }));
  }

  protected unplace(): void {
    void this.revise<Record<string, unknown>>(this.at(), ({ x: _x, y: _y, ...rest }) => rest);
  }

  protected join(): void {
    void this.put(`${this.at()}/team`, this.firstOf('teams', 'team'));
  }
}
