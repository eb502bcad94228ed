import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { entriesOf, type EntryJson } from '../rulebook/entries';
import { amount } from '../rulebook/spec/formats';
import { Editor } from '../store/editor';

/** A poke as it is sent: an action on a seat. */
export interface Poke {
  readonly seat: string;
  /** The seat that it comes from. */
  readonly from?: string;
  readonly action: { readonly do: string; readonly [argument: string]: unknown };
}

const KINDS = [
  'hurt',
  'heal',
  'set',
  'give',
  'take',
  'award',
  'givePoints',
  'unlock',
  'forgetAchievements',
  'offerQuest',
  'countGoal',
  'finishQuest',
  'failQuest',
  'forgetQuests',
  'passTime',
  'drop',
  'endDay',
  'apply',
  'end',
  'grant',
  'withdraw',
  'spawn',
  'summon',
  'place',
  'enter',
  'leave',
  'fell',
  'revive',
] as const;
type Kind = (typeof KINDS)[number];

/** What each poke is about: a chapter to pick from, and whether it takes an amount. */
const ABOUT: Readonly<
  Record<
    Kind,
    {
      readonly chapter: string;
      readonly field: string;
      readonly amount?: string;
      readonly at?: boolean;
      /** Arguments that are always the same. */
      readonly fixed?: Readonly<Record<string, unknown>>;
      readonly fits?: (entry: EntryJson) => boolean;
    }
  >
> = {
  hurt: { chapter: 'attributes', field: 'attribute', amount: 'amount', fits: (e) => e['kind'] === 'pool' },
  heal: { chapter: 'attributes', field: 'attribute', amount: 'amount', fits: (e) => e['kind'] === 'pool' },
  set: { chapter: 'attributes', field: 'attribute', amount: 'value' },
  give: { chapter: 'attributes', field: 'attribute', amount: 'amount', fits: (e) => e['kind'] === 'counter' },
  take: { chapter: 'attributes', field: 'attribute', amount: 'amount', fits: (e) => e['kind'] === 'counter' },
  award: { chapter: 'tracks', field: 'track', amount: 'amount' },
  unlock: { chapter: 'achievements', field: 'achievement' },
  forgetAchievements: { chapter: '', field: '' },
  givePoints: { chapter: 'trees', field: 'tree', amount: 'amount' },
  offerQuest: { chapter: 'quests', field: 'quest' },
  countGoal: { chapter: 'quests', field: 'quest', amount: 'amount' },
  finishQuest: { chapter: 'quests', field: 'quest' },
  failQuest: { chapter: 'quests', field: 'quest' },
  forgetQuests: { chapter: '', field: '' },
  passTime: { chapter: '', field: '', fixed: { time: '86400s' } },
  drop: { chapter: 'loot', field: 'table' },
  endDay: { chapter: '', field: '' },
  apply: { chapter: 'effects', field: 'effect' },
  end: { chapter: 'effects', field: 'effect' },
  grant: { chapter: 'statuses', field: 'status' },
  withdraw: { chapter: 'statuses', field: 'status' },
  spawn: { chapter: 'pickups', field: 'pickup' },
  summon: { chapter: 'actors', field: 'actor', at: true, fits: (e) => e['kind'] !== 'player' },
  place: { chapter: '', field: '', at: true },
  enter: { chapter: 'states', field: 'state' },
  leave: { chapter: 'states', field: 'state' },
  fell: { chapter: '', field: '' },
  revive: { chapter: '', field: '' },
};

/** Pokes that are called otherwise than their actions. */
const WORDS: Readonly<Partial<Record<Kind, string>>> = {
  place: 'move to',
  givePoints: 'give points of',
  forgetAchievements: 'take achievements back',
  offerQuest: 'offer the quest',
  countGoal: 'count for the quest',
  finishQuest: 'be done with',
  failQuest: 'fail in',
  forgetQuests: 'take quests back',
  passTime: 'let a day pass',
  drop: 'roll',
  endDay: 'end the day',
};

/** Changes from outside, to see what follows: one line, opened by one key. */
@Component({
  selector: 'ee-pokes',
  template: `
    <form (submit)="$event.preventDefault(); poke()">
      <span class="soft">Poke</span>
      <select #first aria-label="What to do" (change)="kind.set(asKind(first.value))">
        @for (item of kinds; track item) {
          <option [value]="item" [selected]="item === kind()">{{ words[item] ?? item }}</option>
        }
      </select>
      @if (about().chapter) {
      <select #what aria-label="What it is about">
        @for (entry of entries(); track entry.id) {
          <option [value]="entry.id">{{ entry.label.toLowerCase() }}</option>
        } @empty {
          <option value="">nothing to {{ kind() }}</option>
        }
      </select>
      }
      @if (about().amount) {
        <input #amount type="text" inputmode="decimal" aria-label="Amount" value="30" [title]="hint" [attr.aria-invalid]="refusal() !== ''" />
      }
      @if (about().at) {
        @if (kind() !== 'place') {
          <span class="soft">at</span>
        }
        <input #spot type="text" aria-label="Where" value="480, 200" title="A point of the arena: x, y" [attr.aria-invalid]="refusal() !== ''" />
      }
      <span class="soft">{{ kind() === 'summon' ? 'for' : kind() === 'spawn' ? 'at' : kind() === 'withdraw' ? 'from' : 'on' }}</span>
      <select #seat aria-label="Seat">
        @for (name of seats(); track name) {
          <option [value]="name">{{ name }}</option>
        }
      </select>
      <span class="soft">from</span>
      <select #from aria-label="From whom">
        <option value="">nobody</option>
        @for (name of seats(); track name) {
          <option [value]="name">{{ name }}</option>
        }
      </select>
      <button type="submit" class="act" [disabled]="about().chapter !== '' && entries().length === 0">Do it</button>
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
      gap: 8px;
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
  private readonly first = viewChild.required<ElementRef<HTMLSelectElement>>('first');
  private readonly what = viewChild<ElementRef<HTMLSelectElement>>('what');
  private readonly spot = viewChild<ElementRef<HTMLInputElement>>('spot');
  protected readonly amount = viewChild<ElementRef<HTMLInputElement>>('amount');
  private readonly from = viewChild.required<ElementRef<HTMLSelectElement>>('from');
  private readonly seat = viewChild.required<ElementRef<HTMLSelectElement>>('seat');
  protected readonly kinds = KINDS;
  protected readonly words = WORDS;
  protected readonly hint = amount.hint ?? '';
  /** What is wrong with what was typed. */
  protected readonly refusal = signal('');
  protected readonly kind = signal<Kind>('hurt');
  protected readonly about = computed(() => ABOUT[this.kind()]);
  protected readonly entries = computed(() => entriesOf(this.document(), this.about().chapter).filter(this.about().fits ?? (() => true)));

  constructor() {
    afterNextRender(() => this.first().nativeElement.focus());
  }

  protected asKind(value: string): Kind {
    return KINDS.find((kind) => kind === value) ?? 'hurt';
  }

  protected poke(): void {
    const { field, amount: takes, at, fixed } = this.about();
    const place = at === true ? /^\s*(-?\d+(?:\.\d+)?)\s*[, ]\s*(-?\d+(?:\.\d+)?)\s*$/.exec(this.spot()!.nativeElement.value) : undefined;
    if (place === null) return this.refusal.set('A point is expected, such as 480, 200.');
    const reading = takes === undefined ? { value: undefined } : amount.read(this.amount()!.nativeElement.value, this.document());
    this.refusal.set(reading.error ?? '');
    if (reading.error !== undefined) return;
    this.poked.emit({
      seat: this.seat().nativeElement.value,
      ...(this.from().nativeElement.value && { from: this.from().nativeElement.value }),
      action: {
        do: this.kind(),
        ...fixed,
        ...(field && { [field]: this.what()!.nativeElement.value }),
        ...(takes === undefined ? {} : { [takes]: reading.value }),
        ...(place && { x: Number(place[1]), y: Number(place[2]) }),
      },
    });
  }
}
