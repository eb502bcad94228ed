import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { entriesOf, labelOf } from '../rulebook/entries';
import { entry } from '../rulebook/spec/choices';
import { amount, lower } from '../rulebook/spec/formats';
import { Part } from '../rulebook/spec/part';
import { Sentence } from '../rulebook/spec/sentence';
import { ahead } from './check-formats';
import { CheckLine } from './check-line';
import { Verdict } from './verdict';

/** An actor that a check is given, as a sentence. */
@Component({
  selector: 'ee-given-line',
  imports: [MatMenuModule, Part, Sentence, Verdict],
  templateUrl: './given-line.html',
  styleUrl: './lines.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class GivenLine extends CheckLine {
  protected readonly actor = ahead(entry('actors'));
  protected readonly team = ahead(entry('teams'));
  protected readonly attribute = ahead(entry('attributes'));
  protected readonly effect = ahead(entry('effects'));
  protected readonly status = ahead(entry('statuses'));
  protected readonly amount = amount;
  protected readonly values = computed(
    () => (this.value()['with'] ?? []) as readonly { readonly attribute: string; readonly atMost?: unknown }[],
  );
  protected readonly effects = computed(() => (this.value()['effects'] ?? []) as readonly string[]);
  protected readonly statuses = computed(() => (this.value()['statuses'] ?? []) as readonly string[]);
  protected readonly placed = computed(() => this.value()['x'] !== undefined || this.value()['y'] !== undefined);

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

  protected place(): void {
    void this.revise<Record<string, unknown>>(this.at(), (now) => ({ ...now, x: 400, y: 400 }));
  }

  protected unplace(): void {
    void this.revise<Record<string, unknown>>(this.at(), ({ x: _x, y: _y, ...rest }) => rest);
  }

  protected join(): void {
    void this.put(`${this.at()}/team`, this.firstOf('teams', 'team'));
  }
}
