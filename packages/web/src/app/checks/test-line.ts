import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { choiceOrNone, entry } from '../rulebook/spec/choices';
import { amount, conditionWith, numberFrom, text } from '../rulebook/spec/formats';
import { Part } from '../rulebook/spec/part';
import { PatternSentence } from '../rulebook/spec/pattern';
import { Sentence } from '../rulebook/spec/sentence';
import { ahead, time, times } from './check-formats';
import { CheckLine } from './check-line';
import { Origins } from './origins';
import { Verdict } from './verdict';

/** Something that a check expects as a sentence: at a moment, or always. */
@Component({
  selector: 'ee-test-line',
  imports: [MatMenuModule, Origins, Part, PatternSentence, Sentence, Verdict],
  templateUrl: './test-line.html',
  styleUrl: './lines.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TestLine extends CheckLine {
  /** It is looked at after every tick. */
  readonly lasting = input(false);
  protected readonly amount = this.orRow(amount);
  protected readonly condition = this.orRow(conditionWith());
  protected readonly time = this.orRow(time);
  protected readonly tolerance = this.orRow(numberFrom({ least: 0, most: 1_000_000_000 }));
  protected readonly text = text;
  protected readonly times = this.orRow(times);
  protected readonly attribute = this.orRow(ahead(entry('attributes')));
  protected readonly isTold = choiceOrNone('is told', { true: 'is not told' }, (word) => word === 'true');
  protected readonly kind = computed(
    () =>
      ['value', 'that', 'event', 'refused', 'reads', 'knows', 'conserved', 'invariant', 'ruleset'].find((key) => key in this.value()) ?? '',
  );

  /** Takes out when it has to be so. */
  protected untimed(): void {
    void this.revise<Record<string, unknown>>(
      this.at(),
      ({ within: _within, notBefore: _notBefore, at: _at, giveOrTake: _off, ...rest }) => rest,
    );
  }
}
