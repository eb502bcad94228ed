import { ChangeDetectionStrategy, Component, computed, inject, resource } from '@angular/core';
import { CheckLine } from '../checks/check-line';
import { ahead } from '../checks/check-formats';
import { type ActionJson, type Piece, piecesOf } from '../rulebook/spec/action-pieces';
import { duration } from '../rulebook/spec/formats';
import { Part } from '../rulebook/spec/part';
import { Sentence } from '../rulebook/spec/sentence';
import { CoreClient } from '../shared/core-client';

/** Something that may happen in a hunt, as a sentence. */
@Component({
  selector: 'ee-may-line',
  imports: [Part, Sentence],
  templateUrl: './may-line.html',
  styleUrl: '../checks/lines.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MayLine extends CheckLine {
  private readonly client = inject(CoreClient);
  private readonly actions = resource({ loader: () => this.client.actions() });
  protected readonly duration = duration;
  protected readonly kind = computed(
    () => ['input', 'poke', 'action', 'leaves', 'restarts', 'pass'].find((key) => key in this.value()) ?? '',
  );
  private readonly doing = computed(() => (this.value()['action'] ?? {}) as ActionJson);

  /** The very thing that is done, in pieces; names in it may be of what is still to be made. */
  protected readonly pieces = computed<readonly Piece[]>(() => {
    const described = this.actions.value()?.find((one) => one.do === this.doing()['do']);
    if (!described || this.kind() !== 'action') return [];
    return piecesOf(described, this.doing(), `${this.at()}/action`).map((piece) => {
      if (piece.label === 'whom') return { at: `${this.at()}/on`, label: 'on whom', format: this.who };
      return piece.format?.names ? { ...piece, format: ahead(piece.format) } : piece;
    });
  });
}
