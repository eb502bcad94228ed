import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  inject,
  Injector,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { MatAutocompleteModule } from '@angular/material/autocomplete';
import { matching } from '../../shared/matching';
import { EndOf, Growing } from '../../shared/growing';

/** More than this is picked by typing a part of its name, and not from a menu. */
export const MANY = 20;

interface Named {
  readonly id: string;
  readonly label: string;
}

/** Picks one of many by a part of its name: a button that becomes a field, and a button again once something is picked. */
@Component({
  selector: 'ee-pick',
  imports: [MatAutocompleteModule, EndOf],
  template: `
    @if (open()) {
      <input
        #box
        [attr.aria-label]="label()"
        placeholder="type a name"
        autocomplete="off"
        spellcheck="false"
        [value]="typed()"
        (input)="type(box.value)"
        (blur)="open.set(false)"
        (keydown.escape)="close()"
        [matAutocomplete]="list"
      />
    } @else {
      <button #button type="button" [attr.aria-label]="label()" (click)="begin()">{{ says() }}</button>
    }
    <mat-autocomplete #list="matAutocomplete" [autoActiveFirstOption]="true" (optionSelected)="pick($event.option.value)" class="choices" panelWidth="auto">
      <!-- A press on the list leaves the focus where it is: the field that loses it closes, and the list with it. -->
      <div (mousedown)="$event.preventDefault()">
        @for (one of found().slice(0, growing.drawn()); track one.id) {
          <mat-option [value]="one.id"
            ><span>{{ one.label }}</span> <span class="soft mono">{{ one.id }}</span></mat-option
          >
        } @empty {
          <mat-option disabled>Nothing is called that.</mat-option>
        }
        @if (found().length > growing.drawn()) {
          <span [eeEndOf]="growing"></span>
        }
      </div>
    </mat-autocomplete>
  `,
  styles: `
    button {
      color: var(--ember);
      font: 600 13px var(--sans);
      padding: 0 4px;
    }
    input {
      width: 18ch;
      border: 0;
      border-bottom: 1.5px solid var(--ember);
      background: none;
      font: inherit;
      outline: none;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Pick {
  readonly options = input.required<readonly Named[]>();
  /** What it is for, for who hears the page. */
  readonly label = input.required<string>();
  /** What stands on the button. */
  readonly says = input('+');
  readonly picked = output<string>();

  private readonly injector = inject(Injector);
  private readonly box = viewChild<ElementRef<HTMLInputElement>>('box');
  private readonly button = viewChild<ElementRef<HTMLButtonElement>>('button');
  protected readonly open = signal(false);
  protected readonly typed = signal('');
  protected readonly growing = new Growing();
  protected readonly found = computed(() => matching(this.options(), this.typed()));

  protected type(text: string): void {
    this.typed.set(text);
    this.growing.restart();
  }

  protected begin(): void {
    this.type('');
    this.open.set(true);
    afterNextRender(() => this.box()?.nativeElement.focus(), { injector: this.injector });
  }

  protected close(): void {
    this.open.set(false);
    afterNextRender(() => this.button()?.nativeElement.focus(), { injector: this.injector });
  }

  protected pick(id: string): void {
    this.close();
    this.picked.emit(id);
  }
}
