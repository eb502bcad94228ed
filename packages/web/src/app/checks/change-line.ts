import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { CHAPTERS } from '../rulebook/chapters';
import { entry } from '../rulebook/spec/choices';
import { text } from '../rulebook/spec/formats';
import { Choose, type Way } from '../rulebook/spec/choose';
import { Part } from '../rulebook/spec/part';
import { Sentence } from '../rulebook/spec/sentence';
import { entriesOf } from '../rulebook/entries';
import { ahead, json } from './check-formats';
import { CheckLine } from './check-line';
import { Verdict } from './verdict';

/** A rule that is another one for this check alone, as a sentence. */
@Component({
  selector: 'ee-change-line',
  imports: [Choose, Part, Sentence, Verdict],
  template: `
    <div class="line" [class.broken]="broken()">
      <ee-sentence clause="change" (removed)="drop()">
        @if (first()) {<b>With</b>} @else {and}{{ ' ' }}<ee-part [at]="at() + '/at'" [format]="text" label="place in the rule" /> of
        <ee-part [at]="at() + '/' + chapter()" [format]="rule()" label="rule" />
        <ng-container> (</ng-container><ee-choose [ways]="ways()" [value]="chapter()" label="chapter" (chosen)="choose($event)" /><ng-container>) </ng-container>
        being <ee-part [at]="at() + '/value'" [format]="json" label="changed value" />,
        <ee-verdict [at]="at()" />
      </ee-sentence>
    </div>
  `,
  styleUrl: './lines.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ChangeLine extends CheckLine {
  protected readonly text = text;
  protected readonly json = json;
  protected readonly chapter = computed(() => Object.keys(this.value()).find((key) => key !== 'at' && key !== 'value') ?? '');
  protected readonly rule = computed(() => ahead(entry(this.chapter())));
  protected readonly ways = computed<readonly Way[]>(() =>
    CHAPTERS.filter(({ workplace }) => !workplace).map(({ key, one }) => ({ value: key, label: one })),
  );

  /** A rule of another chapter: its first, and what every entry has. */
  protected choose(chapter: string): void {
    const [first] = entriesOf(this.context.document(), chapter);
    void this.put(this.at(), { [chapter]: first?.id ?? 'rule', at: 'label', value: first?.label ?? '' });
  }
}
