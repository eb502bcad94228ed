import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { type Clause, Clauses } from '../spec/clauses';
import { Note, NOTE } from '../spec/note';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecFields } from '../spec/spec-fields';

interface Mark {
  readonly mark: string;
  readonly at: string;
}

/** A clip in sentences, with its marks on a line. */
@Component({
  selector: 'ee-clip-sentences',
  imports: [Part, Sentence, Clauses, Note],
  template: `
    <ee-sentence>An animation <ee-part at="length" label="length" /> long. Only its length and its marks matter here.</ee-sentence>
    @for (mark of marks(); track $index) {
      <ee-sentence clause="mark" (removed)="removeFrom('marks', $index)"><ee-part [at]="'marks/' + $index + '/mark'" label="mark" /> is at <ee-part [at]="'marks/' + $index + '/at'" label="time of the mark" />.</ee-sentence>
    }
    <ee-note />
    <ee-clauses [all]="clauses">
      <button type="button" class="chip" (click)="addMark()">mark</button>
    </ee-clauses>
    <div class="line" role="img" [attr.aria-label]="words()">
      @for (mark of placed(); track mark.mark) {
        <span class="tick" [style.left.%]="mark.share * 100"><i></i>{{ mark.mark }} <span class="mono">{{ mark.at }}</span></span>
      }
    </div>
  `,
  styles: `
    .line {
      position: relative;
      height: 54px;
      margin: 18px 70px 10px 0;
      border-top: 6px solid var(--ember-wash);
    }
    .tick {
      position: absolute;
      top: -12px;
      padding-top: 20px;
      font-size: 12.5px;
      white-space: nowrap;
    }
    .tick i {
      position: absolute;
      left: 0;
      top: 0;
      height: 18px;
      border-left: 2px solid var(--brass);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ClipSentences extends SpecFields {
  protected readonly marks = computed(() => (this.context.value('marks') as readonly Mark[] | undefined) ?? []);
  protected readonly placed = computed(() => {
    const whole = seconds(String(this.context.value('length') ?? '1s'));
    return [...this.marks(), { mark: 'end', at: String(this.context.value('length') ?? '') }].map((mark) => ({
      ...mark,
      share: whole > 0 ? Math.min(1, seconds(mark.at) / whole) : 0,
    }));
  });
  protected readonly words = computed(() =>
    this.placed()
      .map(({ mark, at }) => `${mark} at ${at}`)
      .join(', '),
  );
  protected readonly clauses: readonly Clause[] = [NOTE];

  protected addMark(): void {
    void this.add<Mark>('marks', (marks) => {
      const words = ['strike', 'release', 'recover', ...Array.from({ length: 50 }, (_, i) => `mark${i + 1}`)];
      return { mark: words.find((word) => !marks.some(({ mark }) => mark === word))!, at: String(this.context.value('length')) };
    });
  }
}

const seconds = (time: string) => Number.parseFloat(time) / (time.endsWith('ms') ? 1000 : 1);
