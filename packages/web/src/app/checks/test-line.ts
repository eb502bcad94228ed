import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { choiceOrNone, entry } from '../rulebook/spec/choices';
import { amount, conditionWith, duration, text } from '../rulebook/spec/formats';
import { Part } from '../rulebook/spec/part';
import { PatternSentence } from '../rulebook/spec/pattern';
import { Sentence } from '../rulebook/spec/sentence';
import { ahead, times } from './check-formats';
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
  protected readonly amount = amount;
  protected readonly condition = conditionWith();
  protected readonly duration = duration;
  protected readonly text = text;
  protected readonly times = times;
  protected readonly attribute = ahead(entry('attributes'));
  protected readonly isTold = choiceOrNone('is told', { true: 'is not told' }, (word) => word === 'true');
  protected readonly kind = computed(
    () =>
      ['value', 'that', 'event', 'refused', 'reads', 'knows', 'conserved', 'invariant', 'ruleset'].find((key) => key in this.value()) ?? '',
  );
}
