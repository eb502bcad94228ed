import {
  afterNextRender,
  booleanAttribute,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  Injector,
  input,
  type OnInit,
  signal,
  viewChild,
} from '@angular/core';
import { MatAutocompleteModule, type MatAutocompleteSelectedEvent } from '@angular/material/autocomplete';
import { CHAPTERS } from '../chapters';
import { entriesOf } from '../entries';
import { formatOf } from './described';
import { type Choice, type PartFormat, type Shown, text } from './formats';
import { EndOf, Growing } from '../../shared/growing';
import { KeptRefusals } from './kept-refusals';
import { Refusals } from './sentence';
import { SpecContext } from './spec-context';

/**
 * A live part of a sentence: read as prose, edited in place. Click or Enter opens it, Enter applies, Escape restores; a
 * value that is refused says why under the sentence and leaves the old one working.
 */
@Component({
  selector: 'ee-part',
  imports: [MatAutocompleteModule, EndOf],
  template: `
    @if (editing()) {
      <input
        #box
        [attr.aria-label]="label()"
        [attr.aria-invalid]="refused()"
        [attr.aria-description]="hint()"
        autocomplete="off"
        spellcheck="false"
        [value]="typed()"
        [style.width.ch]="width()"
        [class.closed]="how().closed"
        (input)="type(box.value)"
        (blur)="leave()"
        (keydown.enter)="enter($event)"
        (keydown.escape)="restore(true)"
        [matAutocomplete]="list"
      />
    } @else {
      <button type="button" class="part {{ shown().look }}" [class.none]="absent()" [class.long]="shown().text.length > 34" [attr.aria-label]="label() + ': ' + shown().text" [title]="preview()" (click)="clicked($event)">{{ shown().text }}</button>
    }
    <mat-autocomplete #list="matAutocomplete" [autoActiveFirstOption]="how().closed" (optionSelected)="pick($event)" class="choices" panelWidth="auto">
      <!-- A press on the list leaves the focus where it is: the field that loses it closes, and the list with it. -->
      <div (mousedown)="$event.preventDefault()">
        @for (choice of choices().slice(0, growing.drawn()); track choice.text) {
          <mat-option [value]="choice.text"
            ><span>{{ choice.label }}</span> <span class="soft mono">{{ choice.hint }}</span></mat-option
          >
        }
        @if (choices().length > growing.drawn()) {
          <span [eeEndOf]="growing"></span>
        }
      </div>
    </mat-autocomplete>
  `,
  styleUrl: './part.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Part implements OnInit {
  /** Where the value stands, below the entry. */
  readonly at = input.required<string>();
  /** How it is shown, typed and picked, where that is not as what it stands for is described. */
  readonly format = input<PartFormat>();
  /** What the part is, for who hears the page. */
  readonly label = input.required<string>();
  /** What it is counted in, for the hint. */
  readonly unit = input('');
  /** What stands there where the document says nothing, where that is not as described; then an empty field takes the value out. */
  readonly empty = input<string>();
  /** It begins a sentence. */
  readonly capital = input(false, { transform: booleanAttribute });

  private readonly context = inject(SpecContext);
  private readonly refusals = inject(Refusals);
  private readonly kept = inject(KeptRefusals);
  private readonly injector = inject(Injector);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly box = viewChild<ElementRef<HTMLInputElement>>('box');

  protected readonly editing = signal(false);
  protected readonly refused = signal(false);
  protected readonly typed = signal('');
  protected readonly growing = new Growing();
  /** The page may be another one by the time that an edit has been looked at. */
  private readonly life = inject(DestroyRef);
  private started = '';
  private place = '';
  private busy = false;
  /** The list was picked from by the key that is being heard. */
  protected picked = false;

  protected readonly value = computed(() => this.context.value(this.at()));
  private readonly field = computed(() => this.context.described(this.at()));
  protected readonly how = computed(() => {
    const [given, field] = [this.format(), this.field()];
    return given ?? (field ? formatOf(field) : text);
  });
  /** Whether its schema or its page says how it is written: what nobody says is read and written as text. */
  isKnown(): boolean {
    return this.format() !== undefined || this.field() !== undefined;
  }

  private readonly none = computed(() => this.empty() ?? this.field()?.absent);
  protected readonly absent = computed(() => this.value() === undefined && this.none() !== undefined);
  protected readonly shown = computed((): Shown => {
    const shown: Shown = this.absent() ? { text: this.none()!, look: 'word' } : this.how().show(this.value(), this.context.document());
    return this.capital() ? { ...shown, text: shown.text.charAt(0).toUpperCase() + shown.text.slice(1) } : shown;
  });
  protected readonly hint = computed(() => {
    const { hint = '' } = this.how();
    return this.unit() && hint ? `${hint.replace(/\.$/, '')}, in ${this.unit()}.` : hint;
  });
  protected readonly width = computed(() => Math.min(44, Math.max(6, this.typed().length + 2)));
  protected readonly choices = computed<readonly Choice[]>(() =>
    this.editing() ? this.how().choices(this.typed(), this.context.document()) : [],
  );

  private readonly named = computed(() => (this.absent() ? undefined : this.how().names?.(this.value(), this.context.document())));
  /** What the entry that is named is, in a line. */
  protected readonly preview = computed(() => {
    const named = this.named();
    const entry = named && entriesOf(this.context.document(), named.chapter).find(({ id }) => id === named.id);
    if (!entry) return '';
    const facts = ['kind', 'start', 'lasts', 'lifetime', 'cooldown', 'note'].flatMap((field) =>
      ['string', 'number'].includes(typeof entry[field]) ? [String(entry[field])] : [],
    );
    return `${entry.label}${facts.length > 0 ? `: ${facts.join(', ')}` : ''}. Ctrl+click goes there.`;
  });

  /** With Ctrl, goes to what is named; otherwise begins to edit. */
  protected clicked(event: MouseEvent): void {
    const named = this.named();
    const known = named && CHAPTERS.some(({ key }) => key === named.chapter);
    if (known && (event.ctrlKey || event.metaKey)) this.context.go(named.chapter, named.id);
    else this.open();
  }

  /** What was refused here before somebody looked elsewhere stands here again. */
  ngOnInit(): void {
    const kept = this.kept.at(this.kept.placeOf(this.context.chapter(), this.context.id(), this.at()));
    if (!kept) return;
    this.begin();
    this.typed.set(kept.text);
    this.refuse(kept.message);
  }

  protected type(value: string): void {
    this.typed.set(value);
    this.growing.restart();
    this.picked = false;
  }

  private begin(): void {
    this.growing.restart();
    this.place = this.kept.placeOf(this.context.chapter(), this.context.id(), this.at());
    this.started = this.how().edit(this.value(), this.context.document());
    this.typed.set(this.started);
    this.editing.set(true);
  }

  protected open(): void {
    this.begin();
    this.refusals.hint(this, this.hint());
    afterNextRender(() => this.box()?.nativeElement.select(), { injector: this.injector });
    afterNextRender(() => this.box()?.nativeElement.focus(), { injector: this.injector });
  }

  protected enter(event: Event): void {
    // Enter on an open list has picked something already. Where it meant an option that had just gone from the list, what
    // was typed is what counts.
    if (!event.defaultPrevented || !this.picked) void this.apply(true);
    this.picked = false;
  }

  protected pick({ option }: MatAutocompleteSelectedEvent): void {
    const text = String(option.value);
    // The list may lag behind fast fingers: what no longer fits was not meant.
    if (!this.choices().some((choice) => choice.text === text)) return;
    this.typed.set(text);
    this.picked = true;
    // A name that is all there is was meant; one in the middle of a formula is not yet the end of it.
    if (this.how().closed || text === this.none() || /^[a-z][A-Za-z0-9]*$/.test(text)) void this.apply(true);
  }

  protected leave(): void {
    if (this.busy || !this.editing()) return;
    if (this.typed() === this.started) this.restore(false);
    else void this.apply(false);
  }

  private async apply(focus: boolean): Promise<void> {
    if (this.busy) return;
    const text = this.typed();
    const none = this.none();
    const absent = none !== undefined && ['', none.toLowerCase()].includes(text.trim().toLowerCase()) && !this.reads(text);
    if (text.trim() === '' && this.how().closed && !absent) return this.restore(focus);
    const reading = absent ? { value: undefined } : this.how().read(text, this.context.document());
    if ('error' in reading && reading.error !== undefined) return this.refuse(reading.error);
    this.busy = true;
    try {
      const problems = await this.context.set(this.at(), 'value' in reading ? reading.value : undefined);
      if (problems.length === 0) return this.applied(text, focus);
      // A few letters that only one name begins with are that name.
      const [only, ...others] = this.choices();
      const meant =
        only && others.length === 0 && /^[A-Za-z ]+$/.test(text) ? this.how().read(only.text, this.context.document()) : undefined;
      if (meant && meant.error === undefined && (await this.context.set(this.at(), meant.value)).length === 0) return this.restore(focus);
      this.refuse(problems.map((p) => p.message).join(' '));
    } finally {
      this.busy = false;
    }
  }

  /** Whether what was typed is a value of its own, although a sentence says the same where there is none. */
  private reads(typed: string): boolean {
    return typed.trim() !== '' && this.how().read(typed, this.context.document()).error === undefined;
  }

  /** Closes the part, unless somebody has written on since. */
  private applied(text: string, focus: boolean): void {
    if (this.typed() === text) return this.restore(focus);
    this.started = text;
    this.busy = false;
    if (document.activeElement !== this.box()?.nativeElement) this.leave();
  }

  private refuse(message: string): void {
    this.kept.put(this.place, { text: this.typed(), message });
    if (this.life.destroyed) return;
    this.refused.set(true);
    this.refusals.put(this, message);
  }

  protected restore(focus: boolean): void {
    this.kept.put(this.place, undefined);
    if (this.life.destroyed) return;
    this.refused.set(false);
    this.refusals.put(this, undefined);
    this.refusals.hint(this, undefined);
    this.editing.set(false);
    if (focus) afterNextRender(() => this.takeFocus(), { injector: this.injector });
  }

  /** An edit is looked at for a while: who writes elsewhere by then keeps the focus there. */
  private takeFocus(): void {
    if (document.activeElement === document.body) this.host.nativeElement.querySelector('button')?.focus();
  }
}
