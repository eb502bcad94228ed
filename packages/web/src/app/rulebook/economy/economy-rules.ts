import { ChangeDetectionStrategy, Component, computed, inject, Injectable, input, signal } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import type { Problem } from '@eager-ember/core';
import { Editor } from '../../store/editor';
import { entriesOf } from '../entries';
import { FileExchange } from '../file-exchange';
import { PRICE_FILES } from './price-files';
import { Choose, type Way } from '../spec/choose';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { asRevision, type EditAt, type Revision, SpecContext } from '../spec/spec-context';
import { ThenList } from '../spec/then-list';

type Json = Readonly<Record<string, unknown>>;

/** The economy as a whole, as the parts of sentences read and change it. */
@Injectable()
class EconomyContext extends SpecContext {
  private readonly edits = inject(Editor);

  protected override shape() {
    return this.descriptions.of('economy');
  }

  protected override whole(): unknown {
    return this.document()?.['economy'];
  }

  override changeAt(at: string, make: EditAt): Promise<readonly Problem[]> {
    return this.revise(at, asRevision(make));
  }

  override revise(at: string, make: Revision): Promise<readonly Problem[]> {
    const keys = at.split('/');
    const change = (json: Json, [key, ...rest]: readonly string[]): Json => {
      const inner = rest.length === 0 ? make(json[key]) : change((json[key] ?? {}) as Json, rest);
      if (Array.isArray(json)) return json.map((one: unknown, i) => (String(i) === key ? inner : one)) as unknown as Json;
      return Object.fromEntries(Object.entries({ ...json, [key]: inner }).filter(([, one]) => one !== undefined));
    };
    return this.put((before) => change(before, keys));
  }

  put(make: (before: Json) => Json | undefined): Promise<readonly Problem[]> {
    return this.edits.propose((document) => {
      const after = make((document['economy'] ?? {}) as Json);
      if (after) return [{ op: 'add', path: '/economy', value: after }];
      return document['economy'] === undefined ? [] : [{ op: 'remove', path: '/economy' }];
    }, 'economy');
  }
}

const ENDS: readonly Way[] = [
  { value: 'key', label: 'when all players have asked for it', hint: 'each from their seat' },
  { value: 'length', label: 'after a time', hint: 'the same for everybody' },
  { value: 'both', label: 'when all have asked, at the latest after', hint: 'a time' },
];

/** Money, days, ruin and the goal, in sentences: the same for every market and shop. */
@Component({
  selector: 'ee-economy-rules',
  imports: [Choose, Part, Sentence, ThenList],
  template: `
    <details aria-label="The economy" [open]="!folded() || !begun()">
      <summary>The economy</summary>
      @if (begun()) {
        <ee-sentence>
          Money is <ee-part at="currency" label="money" />. A day ends <ee-choose [ways]="ends" [value]="end()" label="when a day ends" (chosen)="endBy($event)" />@if (end() !== 'key') {{{ ' ' }}<ee-part at="day/length" label="length of a day" />}; then upkeep is paid, a statement is drawn up, and prices move.
        </ee-sentence>
        @if (has('ruin')) {
          <ee-sentence clause="ruin" at="ruin">
            Ruined is who can’t pay@if (has('ruin/if')) {, or for whom <ee-part at="ruin/if" label="who is ruined besides" />}, after a last chance of <ee-part at="ruin/lastChance" label="last chance" /> to sell: “<ee-part at="ruin/say" label="words of ruin" />”.
            @if (!has('ruin/if')) {
              <button type="button" class="more" (click)="set('ruin/if', money() + ' < 0')">+ who else</button>
            }
          </ee-sentence>
          <ee-then at="ruin/then" />
        }
        @if (has('goal')) {
          <ee-sentence clause="goal" at="goal">
            The goal is <ee-part at="goal/if" label="goal" />, in as few days as one can: “<ee-part at="goal/say" label="words of the goal" />”.
          </ee-sentence>
          <ee-then at="goal/then" />
        }
        @if (has('haul')) {
          <ee-sentence clause="a day’s work" at="haul">A day’s work brings what one opening of <ee-part at="haul" label="a day’s work" /> gives, in games that are simulated.</ee-sentence>
        }
        <p class="add">
          <span class="soft">Add</span>
          @if (!has('ruin')) {
            <button type="button" class="chip" (click)="set('ruin', { lastChance: '30s' })">ruin</button>
          }
          @if (!has('goal')) {
            <button type="button" class="chip" (click)="set('goal', { if: money() + ' >= 1000' })">goal</button>
          }
          @if (!has('haul')) {
            <button type="button" class="chip" (click)="addHaul()">a day’s work</button>
          }
          <button type="button" class="chip" (click)="file()">CSV …</button>
        </p>
      } @else {
        <p class="soft">No money yet: no days, no markets, no upkeep.</p>
        <button type="button" class="act" (click)="begin()">Say what money is</button>
      }
      @if (refusal()) {
        <p class="refusal" role="alert">{{ refusal() }}</p>
      }
    </details>
  `,
  styles: `
    details {
      border-top: 1px solid var(--hair);
      margin-top: 10px;
      padding-top: 6px;
    }
    summary {
      font: 700 13.5px var(--sans);
      margin: 0 0 4px;
      cursor: pointer;
    }
    .add {
      display: flex;
      flex-wrap: wrap;
      gap: 5px 7px;
      align-items: center;
      margin: 4px 0 8px;
      font-size: 12.5px;
    }
    .more {
      color: var(--soft);
      font: 600 12px var(--sans);
    }
  `,
  providers: [EconomyContext, { provide: SpecContext, useExisting: EconomyContext }],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EconomyRulesPart {
  /** Whether it is only shown when it is asked for. */
  readonly folded = input(false);
  private readonly context = inject(EconomyContext);
  protected readonly refusal = signal('');
  protected readonly ends = ENDS;
  protected readonly begun = computed(() => this.context.document()?.['economy'] !== undefined);
  protected readonly money = computed(() => String(this.context.value('currency')));
  protected readonly end = computed(() => {
    if (this.context.value('day/length') === undefined) return 'key';
    return this.context.value('day/key') === false ? 'length' : 'both';
  });

  protected has(at: string): boolean {
    return this.context.value(at) !== undefined;
  }

  protected async set(at: string, value: unknown): Promise<void> {
    this.say(await this.context.set(at, value));
  }

  private say(problems: readonly Problem[]): void {
    this.refusal.set(problems.map(({ message }) => message).join(' '));
  }

  protected async begin(): Promise<void> {
    const counter = entriesOf(this.context.document(), 'attributes').find((one) => one['kind'] === 'counter');
    if (!counter) return this.refusal.set('There is no counter yet that could be money: begin one under Stats.');
    this.say(await this.context.put(() => ({ currency: counter.id })));
  }

  protected async endBy(way: string): Promise<void> {
    const length = (this.context.value('day/length') as string | undefined) ?? '120s';
    await this.set('day', way === 'key' ? undefined : { length, key: way === 'both' });
  }

  protected addHaul(): void {
    const [first] = entriesOf(this.context.document(), 'loot');
    if (!first) return this.refusal.set('There is no loot table yet: begin one under Loot.');
    void this.set('haul', first.id);
  }

  protected file(): void {
    this.dialog.open(FileExchange, { data: PRICE_FILES });
  }

  private readonly dialog = inject(MatDialog);
}
