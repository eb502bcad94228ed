import { ChangeDetectionStrategy, Component, computed, inject, resource } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { CoreClient } from '../shared/core-client';
import { type ActionJson, type Piece, piecesOf, unsaid, type Unsaid } from '../rulebook/spec/action-pieces';
import { conditionWith } from '../rulebook/spec/formats';
import { Part } from '../rulebook/spec/part';
import { PatternSentence } from '../rulebook/spec/pattern';
import { Sentence } from '../rulebook/spec/sentence';
import { ahead, time } from './check-formats';
import { CheckLine } from './check-line';
import { Verdict } from './verdict';

/** A step of a check as a sentence: what somebody asks for, what is done from outside, what is waited for. */
@Component({
  selector: 'ee-step-line',
  imports: [MatMenuModule, Part, PatternSentence, Sentence, Verdict],
  templateUrl: './step-line.html',
  styleUrl: './lines.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StepLine extends CheckLine {
  private readonly client = inject(CoreClient);
  private readonly actions = resource({ loader: () => this.client.actions() });
  private readonly inputs = resource({ loader: () => this.client.inputs() });
  protected readonly time = this.orRow(time);
  protected readonly condition = this.orRow(conditionWith());
  protected readonly kind = computed(
    () =>
      ['pass', 'input', 'action', 'until', 'untilEvent', 'joins', 'leaves', 'returns', 'restarts'].find((key) => key in this.value()) ?? '',
  );

  private readonly doing = computed(() => (this.value()[this.kind()] ?? {}) as ActionJson);
  private readonly described = computed(() =>
    (this.kind() === 'action' ? this.actions : this.inputs).value()?.find((one) => one.do === this.doing()['do']),
  );
  /** What is asked for or done, in pieces; names in it may be of what is still to be made. */
  protected readonly pieces = computed<readonly Piece[]>(() => {
    const described = this.described();
    if (!described || !['input', 'action'].includes(this.kind())) return [];
    return piecesOf(described, this.doing(), `${this.at()}/${this.kind()}`).map((piece) => {
      if (piece.label === 'whom') return { at: `${this.at()}/on`, label: 'on whom', format: this.nobody };
      return piece.format ? { ...piece, format: this.orRow(piece.format.names ? ahead(piece.format) : piece.format) } : piece;
    });
  });
  /** Whom it is done to is said behind it, where its sentence has no place for that. */
  protected readonly behind = computed(() => this.kind() === 'action' && !this.pieces().some(({ label }) => label === 'on whom'));
  protected readonly mayBeFrom = computed(() => this.kind() === 'action' && this.value()['from'] === undefined && this.names().length > 1);
  protected readonly more = computed<readonly Unsaid[]>(() => {
    const described = this.described();
    return described && this.pieces().length > 0
      ? unsaid(described, this.doing(), `${this.at()}/${this.kind()}`, this.context.document()).filter(({ begins }) => begins !== undefined)
      : [];
  });
}
