import {
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  forwardRef,
  inject,
  input,
  resource,
  viewChildren,
} from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import type { ActionDescription } from '@eager-ember/core';
import { CoreClient } from '../../shared/core-client';
import { entriesOf } from '../entries';
import { type ActionJson, beginningsOf, type Piece, piecesOf, unsaid, type Unsaid } from './action-pieces';
import { choiceOrNone } from './choices';
import { fitsIn } from './described';
import { amount } from './formats';
import { Part } from './part';
import { Sentence } from './sentence';
import { SpecFields } from './spec-fields';

const FOR_EACH = 'for each who shares it';
/** How often what follows from something that is shared does. */
const FOLLOWS = choiceOrNone(FOR_EACH, { true: 'once, for whoever brought it about' }, (word) => word === 'true');

interface Line {
  readonly at: string;
  /** Where it is said that it follows once. */
  readonly once: string;
  readonly name: string;
  readonly pieces: readonly Piece[];
  /** What else the action could say. */
  readonly more: readonly Unsaid[];
  readonly branches: readonly number[];
  /** What stands in its lists is for whom it would be beside them. */
  readonly steers: boolean;
}

/** A list of actions as sentences: the "then" of any concept. Alt with the arrows moves the line that has the focus. */
@Component({
  selector: 'ee-then',
  imports: [MatMenuModule, Part, Sentence, forwardRef(() => ThenList)],
  template: `
    @for (line of lines(); track line.at) {
      <div #row (keydown.alt.arrowup)="move($event, $index, -1)" (keydown.alt.arrowdown)="move($event, $index, 1)">
        <ee-sentence [clause]="line.name" (removed)="remove($index)">
          @for (piece of line.pieces; track $index) {
            @if (piece.format; as format) {
              <ee-part [at]="piece.at" [format]="format" [label]="piece.label" [empty]="piece.label === 'whom' ? (whom() === 'target' ? 'the target' : 'self') : undefined" />
            } @else if (!piece.inner) {
              <ng-container>{{ piece.words }}</ng-container>
            }
          }
          @if (shared()) {<ng-container>, </ng-container><ee-part [at]="line.once" [format]="follows" label="how often" [empty]="forEach" />}
          @for (clause of line.more; track clause.name) {
            <button type="button" class="more" (click)="put(clause.at, clause.begins)">+ {{ clause.name }}</button>
          }
        </ee-sentence>
        @for (piece of line.pieces; track $index) {
          @if (piece.inner === 'then') {
            @if (piece.label === 'else') {
              <p class="otherwise">otherwise:</p>
            }
            <ee-then [at]="piece.at" [whom]="line.steers ? whom() : 'self'" [shared]="shared()" />
          } @else if (piece.inner === 'branches') {
            @for (branch of line.branches; track branch) {
              <ee-sentence clause="branch" (removed)="removeBranch(piece.at, $index)">with weight <ee-part [at]="piece.at + '/' + $index + '/weight'" [format]="weight" label="weight" />:</ee-sentence>
              <ee-then [at]="piece.at + '/' + $index + '/then'" [whom]="whom()" [shared]="shared()" />
            }
            <button type="button" class="more" (click)="addBranch(piece.at)">+ branch</button>
          }
        }
      </div>
    } @empty {
      <p class="nothing">nothing yet</p>
    }
    <button type="button" class="chip" [matMenuTriggerFor]="menu">+ action</button> <ng-content />
    <mat-menu #menu="matMenu">
      @for (action of offered(); track action.do) {
        <button mat-menu-item (click)="begin(action)">{{ action.label }}</button>
      }
    </mat-menu>
    @if (refusal()) {
      <p class="refusal" role="alert">{{ refusal() }}</p>
    }
  `,
  styles: `
    :host {
      display: block;
      border-left: 2px solid var(--hair);
      padding: 0 0 1px 12px;
      margin: 0 0 5px 2px;
    }
    .nothing,
    .otherwise {
      font: italic 15.5px/1.5 var(--serif);
      color: var(--soft);
      display: inline-block;
      margin-right: 10px;
    }
    .chip {
      font-size: 11.5px;
      line-height: 16px;
      padding: 0 8px;
    }
    .more {
      color: var(--soft);
      font: 600 12px var(--sans);
      padding: 0 4px;
    }
    .more:hover {
      color: var(--ember);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ThenList extends SpecFields {
  readonly at = input.required<string>();
  /** Whom an action is for that does not say. */
  readonly whom = input<'self' | 'target'>('self');
  /** Whether it follows for each of several who share something, and what is in it may follow once. */
  readonly shared = input(false);
  /** Whom a new action says that it is for; nothing where it is left out. */
  readonly begins = input('');
  private readonly client = inject(CoreClient);
  private readonly actions = resource({ loader: () => this.client.actions() });
  private readonly rows = viewChildren<ElementRef<HTMLElement>>('row');
  protected readonly weight = amount;
  protected readonly follows = FOLLOWS;
  protected readonly forEach = FOR_EACH;

  /** Actions whose arguments can be filled: one that needs a pickup is not offered where there is none. */
  protected readonly offered = computed(() =>
    (this.actions.value() ?? []).filter((action) =>
      action.args.every(
        (arg) => arg.optional || arg.kind !== 'reference' || entriesOf(this.context.document(), arg.chapter).some(fitsIn(arg)),
      ),
    ),
  );

  protected readonly lines = computed<readonly Line[]>(() =>
    this.list<ActionJson>(this.at()).map((action, i) => {
      const at = `${this.at()}/${i}`;
      const described = (this.actions.value() ?? []).find((a) => a.do === action['do']);
      return {
        at: `${at}/${String(action['do'])}`,
        once: `${at}/once`,
        name: described?.label ?? String(action['do']),
        pieces: described ? piecesOf(described, action, at) : [],
        more: described ? unsaid(described, action, at, this.context.document()) : [],
        branches: Array.isArray(action['among']) ? [...action['among'].keys()] : [],
        steers: described?.steers ?? false,
      };
    }),
  );

  protected begin(action: ActionDescription): void {
    const fresh: Record<string, unknown> = { do: action.do };
    // What is done at each pulse is mostly meant for whom the channel is aimed at.
    if (this.begins() !== '' && !action.steers) fresh['to'] = this.begins();
    Object.assign(fresh, beginningsOf(action, this.context.document()));
    void this.add(this.at(), fresh);
  }

  protected remove(index: number): void {
    void this.removeFrom(this.at(), index, true);
  }

  /** Moves a line up or down in the list; the focus goes along. */
  protected async move(event: Event, index: number, by: number): Promise<void> {
    event.preventDefault();
    event.stopPropagation();
    const to = index + by;
    if (to < 0 || to >= this.lines().length) return;
    await this.swap(this.at(), index, by);
    setTimeout(() => this.rows()[to]?.nativeElement.querySelector('button')?.focus());
  }

  protected addBranch(at: string): void {
    void this.add(at, { weight: 1, then: [] });
  }

  protected removeBranch(at: string, index: number): void {
    void this.removeFrom(at, index, true);
  }
}
