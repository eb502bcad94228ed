import { ChangeDetectionStrategy, Component, computed, effect, inject, input, output, resource } from '@angular/core';
import { CoreClient } from '../../shared/core-client';
import { type ActionJson, type Piece, piecesOf } from '../spec/action-pieces';
import { choice } from '../spec/choices';
import { duration } from '../spec/formats';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecContext } from '../spec/spec-context';

/** What is tried out is always one and the same. */
const NOBODY_ELSE = { words: 'it', label: '' };

/** One pin of a situation as a sentence: when, what, and from whom. */
@Component({
  selector: 'ee-pin-editor',
  imports: [Part, Sentence],
  template: `
    <ee-sentence>
      At <ee-part [at]="at() + '/at'" [format]="duration" label="moment" />: @for (piece of pieces(); track $index) {
        @if (piece.format; as format) {
          <ee-part [at]="piece.at" [format]="format" [label]="piece.label" [empty]="piece.label === 'whom' ? 'self' : undefined" />
        } @else if (!piece.inner) {
          <ng-container>{{ piece.words }}</ng-container>
        }
      },
      <ee-part [at]="at() + '/from'" [format]="from" label="from" empty="from nobody" />. The whole is shown for
      <ee-part at="seconds" label="seconds shown" /> s.
      <button type="button" class="act" (click)="removed.emit()">Take it out</button>
      <button type="button" class="soft" (click)="closed.emit()">Done</button>
    </ee-sentence>
  `,
  styles: `
    :host {
      display: block;
      background: var(--leaf);
      border-left: 3px solid var(--brass);
      padding: 4px 12px 2px;
      margin: 6px 0;
    }
    button {
      font: 600 12.5px var(--sans);
      margin-left: 8px;
    }
  `,
  providers: [SpecContext],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PinEditor {
  readonly situation = input.required<string>();
  readonly index = input.required<number>();
  readonly removed = output<void>();
  readonly closed = output<void>();
  private readonly context = inject(SpecContext);
  private readonly client = inject(CoreClient);
  private readonly actions = resource({ loader: () => this.client.actions() });
  protected readonly duration = duration;
  protected readonly from = choice({ other: 'from another' });
  protected readonly at = computed(() => `pins/${this.index()}`);
  protected readonly pieces = computed<readonly Piece[]>(() => {
    const action = this.context.value(`${this.at()}/action`) as ActionJson | undefined;
    const described = this.actions.value()?.find((each) => each.do === action?.['do']);
    return action && described
      ? piecesOf(described, action, `${this.at()}/action`).map((piece) =>
          piece.label === 'whom' ? { ...NOBODY_ELSE, at: piece.at } : piece,
        )
      : [];
  });

  constructor() {
    effect(() => {
      this.context.chapter.set('situations');
      this.context.id.set(this.situation());
    });
  }
}
