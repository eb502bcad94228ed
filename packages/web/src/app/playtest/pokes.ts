import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  inject,
  input,
  output,
  resource,
  signal,
  viewChild,
} from '@angular/core';
import { CoreClient } from '../shared/core-client';
import { Editor } from '../store/editor';
import { canBePoked, type Control, pokedAction, pokeLine } from './poke-line';

/** A poke as it is sent: an action on a seat. */
export interface Poke {
  readonly seat: string;
  /** The seat that it comes from. */
  readonly from?: string;
  readonly action: { readonly do: string; readonly [argument: string]: unknown };
}

/** Changes from outside, to see what follows: any action, as one line that is opened by one key. */
@Component({
  selector: 'ee-pokes',
  template: `
    <form #form (submit)="$event.preventDefault(); poke(form)">
      <span class="soft">Poke</span>
      <select #first aria-label="What to do" (change)="kind.set(first.value)">
        @for (action of actions(); track action.do) {
          <option [value]="action.do" [selected]="action.do === current()?.do">{{ action.label }}</option>
        }
      </select>
      <!-- What is filled in belongs to one action: another one begins anew. -->
      @for (action of current() ? [current()!] : []; track action.do) {
        @for (piece of line(); track $index) {
          @if ('control' in piece) {
            @let control = piece.control;
            @if (control.options; as options) {
              <select #pick [name]="control.name" [attr.aria-label]="control.label" (change)="control.name === 'seat' && seat.set(pick.value)">
                @for (option of options; track option.value) {
                  <option [value]="option.value" [selected]="control.name === 'seat' && option.value === seat()">{{ option.label }}</option>
                } @empty {
                  <option value="">there is none</option>
                }
              </select>
            } @else {
              <input type="text" [name]="control.name" [attr.aria-label]="control.label" [value]="control.begins" [title]="control.hint" [attr.aria-invalid]="refusal() !== ''" />
            }
          } @else {
            <span class="soft">{{ piece.words }}</span>
          }
        }
      }
      <span class="soft">from</span>
      <select name="from" aria-label="From whom">
        <option value="">nobody</option>
        @for (name of seats(); track name) {
          <option [value]="name">{{ name }}</option>
        }
      </select>
      <button type="submit" class="act" [disabled]="lacks()">Do it</button>
    </form>
    @if (refusal()) {
      <p class="refusal" role="alert">{{ refusal() }}</p>
    }
  `,
  styles: `
    form {
      display: flex;
      flex-wrap: wrap;
      align-items: baseline;
      gap: 6px;
    }
    select,
    input {
      border: 0;
      border-bottom: 1px dotted var(--soft);
      background: var(--paper);
      font: 16px var(--serif);
      padding: 1px 2px;
      max-width: 150px;
    }
    input {
      width: 84px;
      font: 13px var(--mono);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Pokes {
  readonly seats = input.required<readonly string[]>();
  readonly poked = output<Poke>();
  private readonly document = inject(Editor).document;
  private readonly client = inject(CoreClient);
  private readonly known = resource({ loader: () => this.client.actions() });
  private readonly first = viewChild.required<ElementRef<HTMLSelectElement>>('first');
  protected readonly actions = computed(() => (this.known.value() ?? []).filter(canBePoked));
  protected readonly kind = signal('');
  /** Whoever was poked last is poked again. */
  protected readonly seat = signal('');
  protected readonly current = computed(() => this.actions().find((action) => action.do === this.kind()) ?? this.actions().at(0));
  protected readonly line = computed(() => {
    const action = this.current();
    return action ? pokeLine(action, this.seats(), this.document()) : [];
  });
  /** There is nothing that it could be about. */
  protected readonly lacks = computed(() => !this.current() || this.controls().some(({ options }) => options?.length === 0));
  private readonly controls = computed(() => this.line().flatMap((piece): Control[] => ('control' in piece ? [piece.control] : [])));
  /** What is wrong with what was typed. */
  protected readonly refusal = signal('');

  constructor() {
    afterNextRender(() => this.first().nativeElement.focus());
  }

  protected poke(form: HTMLFormElement): void {
    const action = this.current();
    if (!action) return;
    const filled = new FormData(form);
    const of = (name: string) => String(filled.get(name) ?? '');
    const made = pokedAction(action, of, this.document());
    this.refusal.set('error' in made ? made.error : '');
    if ('error' in made) return;
    this.poked.emit({ seat: of('seat'), ...(of('from') && { from: of('from') }), action: made.action });
  }
}
