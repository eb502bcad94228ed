import { ChangeDetectionStrategy, Component, computed, inject, input, resource } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import type { ActionDescription } from '@eager-ember/core';
import { CoreClient } from '../../shared/core-client';
import { entriesOf } from '../chapters';
import { amount, entry, number, party, type PartFormat, text } from './formats';
import { Part } from './part';
import { Sentence } from './sentence';
import { SpecContext } from './spec-context';

/** A piece of an action's sentence: words, or a part to edit. */
interface Piece {
  readonly words?: string;
  readonly at: string;
  readonly label: string;
  readonly format?: PartFormat;
}

interface Line {
  readonly at: string;
  readonly name: string;
  readonly pieces: readonly Piece[];
}

/** A list of actions as sentences: the "then" of any concept. */
@Component({
  selector: 'ee-then',
  imports: [MatMenuModule, Part, Sentence],
  template: `
    @for (line of lines(); track line.at) {
      <ee-sentence [clause]="line.name" (removed)="remove($index)">
        @for (piece of line.pieces; track $index) {
          @if (piece.format; as format) {
            <ee-part [at]="piece.at" [format]="format" [label]="piece.label" [empty]="piece.label === 'whom' ? 'self' : undefined" />
          } @else {
            {{ piece.words }}
          }
        }
      </ee-sentence>
    } @empty {
      <p class="nothing">nothing yet</p>
    }
    <button type="button" class="chip" [matMenuTriggerFor]="menu">+ action</button>
    <mat-menu #menu="matMenu">
      @for (action of offered(); track action.do) {
        <button mat-menu-item (click)="add(action)">{{ action.label }}</button>
      }
    </mat-menu>
  `,
  styles: `
    :host {
      display: block;
      border-left: 2px solid var(--hair);
      padding: 2px 0 2px 16px;
      margin: 0 0 12px 2px;
    }
    .nothing {
      font: italic 17px/1.7 var(--serif);
      color: var(--soft);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ThenList {
  readonly at = input.required<string>();
  private readonly context = inject(SpecContext);
  private readonly client = inject(CoreClient);
  private readonly actions = resource({ loader: () => this.client.actions() });

  private readonly list = computed(() => (this.context.value(this.at()) as readonly Record<string, unknown>[] | undefined) ?? []);

  /** Actions whose arguments can be filled: one that needs a pickup is not offered where there is none. */
  protected readonly offered = computed(() =>
    (this.actions.value() ?? []).filter((action) =>
      action.args.every(({ kind }) => kind.kind !== 'reference' || entriesOf(this.context.document(), kind.chapter).length > 0),
    ),
  );

  protected readonly lines = computed<readonly Line[]>(() =>
    this.list().map((action, i) => {
      const at = `${this.at()}/${i}`;
      const described = (this.actions.value() ?? []).find((a) => a.do === action['do']);
      return {
        at: `${at}/${String(action['do'])}`,
        name: described?.label ?? String(action['do']),
        pieces: described ? piecesOf(described, at) : [],
      };
    }),
  );

  protected add(action: ActionDescription): void {
    const fresh: Record<string, unknown> = { do: action.do };
    for (const { name, optional, kind } of action.args) {
      if (optional) continue;
      fresh[name] = kind.kind === 'reference' ? entriesOf(this.context.document(), kind.chapter)[0].id : kind.kind === 'text' ? '' : 1;
    }
    void this.context.set(this.at(), [...this.list(), fresh]);
  }

  protected remove(index: number): void {
    void this.context.set(
      this.at(),
      this.list().filter((_, i) => i !== index),
    );
  }
}

function piecesOf(action: ActionDescription, at: string): readonly Piece[] {
  return action.sentence
    .split(/(\{\w+\})/)
    .filter(Boolean)
    .map((piece) => {
      const name = /^\{(\w+)\}$/.exec(piece)?.[1];
      if (name === undefined) return { words: piece, at, label: '' };
      if (name === 'to') return { at: `${at}/to`, label: 'whom', format: party };
      const kind = action.args.find((arg) => arg.name === name)?.kind;
      const format =
        kind?.kind === 'reference' ? entry(kind.chapter) : kind?.kind === 'number' ? number : kind?.kind === 'amount' ? amount : text;
      return { at: `${at}/${name}`, label: name, format };
    });
}
