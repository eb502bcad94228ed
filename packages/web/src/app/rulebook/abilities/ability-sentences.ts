import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { SEEN_BY } from '../attributes/attribute-sentences';
import { entriesOf } from '../entries';
import { Carriers } from '../spec/carriers';
import { Choose, type Way } from '../spec/choose';
import { type Clause, Clauses } from '../spec/clauses';
import {
  amount,
  choice,
  condition,
  duration,
  entry,
  flag,
  number,
  numberFrom,
  type PartFormat,
  share,
  text,
  timeAmount,
  who,
} from '../spec/formats';
import { length } from '../spec/lengths';
import { Names } from '../spec/names';
import { Note, NOTE } from '../spec/note';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecFields } from '../spec/spec-fields';
import { ThenList } from '../spec/then-list';

const AIMS: readonly Way[] = [
  { value: 'self', label: 'at oneself', hint: 'nobody else is asked for' },
  { value: 'actor', label: 'at one', hint: 'somebody in range' },
  { value: 'point', label: 'at a point', hint: 'on the ground' },
  { value: 'direction', label: 'in a direction', hint: 'for what flies' },
  { value: 'cone', label: 'into a cone', hint: 'all that stand in it' },
  { value: 'nearest', label: 'at the nearest', hint: 'so many of them' },
];
const DELIVERIES: readonly Way[] = [
  { value: 'once', label: 'at once', hint: 'nothing is on its way' },
  { value: 'projectile', label: 'by projectiles', hint: 'that fly and meet somebody' },
  { value: 'area', label: 'by an area', hint: 'that lands where it was aimed' },
];
/** What a target asks for, to begin with. */
const AIM_BEGINS: Readonly<Record<string, Readonly<Record<string, unknown>>>> = {
  actor: { range: 200 },
  point: { range: 200 },
  cone: { range: 160, angle: 60 },
  nearest: { range: 200, count: 1 },
};

type Requirement = Readonly<Record<string, unknown>>;

/** An ability in sentences. */
/** What a loss has to come to; `none` where no loss breaks it. */
const LOSS: PartFormat = {
  ...number,
  show: (value) => ({ text: `by a loss of ${String(value)} or more`, look: 'word' }),
  read: (typed, document) => (/^(none|by no loss)$/.test(typed.trim()) ? { value: undefined } : number.read(typed, document)),
  choices: (typed) =>
    'by no loss'.includes(typed.trim()) || /^\d*$/.test(typed.trim()) ? [{ text: 'none', label: 'by no loss', hint: '' }] : [],
  hint: 'A number, or “none” where no loss breaks it.',
};

@Component({
  selector: 'ee-ability-sentences',
  imports: [Part, Sentence, Clauses, Choose, Names, ThenList, Carriers, Note],
  templateUrl: './ability-sentences.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AbilitySentences extends SpecFields {
  protected readonly amount = amount;
  protected readonly amountOnly = number;
  protected readonly condition = condition;
  protected readonly duration = duration;
  protected readonly length = length;
  protected readonly timeAmount = timeAmount;
  protected readonly words = text;
  protected readonly share = share;
  protected readonly aims = AIMS;
  protected readonly deliveries = DELIVERIES;
  protected readonly seen = choice({ owner: SEEN_BY['owner'], team: SEEN_BY['team'], everyone: SEEN_BY['everyone'] });
  protected readonly who = who;
  protected readonly sight = flag({ true: 'in sight only', false: 'also behind walls' });
  protected readonly charges = choice({ onStart: 'as it begins', onFinish: 'when the cast is over' });
  protected readonly cools = choice({ onStart: 'its beginning', onFinish: 'the end of its cast' });
  protected readonly moving = flag({ true: 'free to move', false: 'standing still' });
  protected readonly loss = LOSS;
  protected readonly byMoving = flag({ true: 'by moving', false: 'not by moving' });
  protected readonly byPlayer = flag({ true: 'by the player', false: 'not by the player' });
  protected readonly homing = flag({ true: 'turns towards them', false: 'flies straight' });
  protected readonly throughout = flag({ true: 'all the while', false: 'as it begins' });
  protected readonly angle = numberFrom(0, 360, 'degrees');
  protected readonly count = numberFrom(1, 100, '', true);
  protected readonly pierce = numberFrom(0, 100, '', true);
  protected readonly boxWidth = numberFrom(10, 100, 'characters', true);
  protected readonly boxLines = numberFrom(1, 20, 'lines', true);
  protected readonly tooltipText: PartFormat = {
    ...text,
    hint: 'Words with formulas in braces, such as {torchPower * 5} or {ability.cast}; also cooldown, recovery, channel, range, stored.',
  };
  protected readonly state = entry('states');
  protected readonly status = entry('statuses');
  protected readonly stat = entry('attributes', (e) => e['kind'] === 'stat');
  protected readonly paid = entry('attributes', (e) => e['kind'] !== 'stat');
  protected readonly aim = computed(() => String((this.context.value('target') as { at?: string } | undefined)?.at ?? 'self'));
  protected readonly delivery = computed(() => String((this.context.value('deliver') as { by?: string } | undefined)?.by ?? 'once'));
  protected readonly atEnd = computed(() => this.context.value('charge') === 'onFinish');
  protected readonly costs = computed(() => (this.context.value('costs') as readonly unknown[] | undefined) ?? []);
  protected readonly requires = computed(() => (this.context.value('requires') as readonly Requirement[] | undefined) ?? []);
  protected readonly payable = computed(() => entriesOf(this.context.document(), 'attributes').filter((e) => e['kind'] !== 'stat'));
  protected readonly statuses = computed(() => entriesOf(this.context.document(), 'statuses'));
  protected readonly takesTime = computed(() => this.has('cast'));
  protected readonly clauses: readonly Clause[] = [
    { at: 'cast', name: 'cast', begins: { time: '1s' } },
    { at: 'cooldown', name: 'cooldown', begins: '5s' },
    { at: 'stored', name: 'store', begins: { most: 2, refill: '4s' } },
    { at: 'groups', name: 'groups', begins: [], fits: () => entriesOf(this.context.document(), 'groups').length > 0 },
    { at: 'channel', name: 'channel', begins: { every: '0.5s', lasts: '2s', then: [] } },
    { at: 'channel/onEnd', name: 'when the channel ends', begins: [], fits: (e) => e['channel'] !== undefined },
    { at: 'recovery', name: 'recovery', begins: { time: '0.5s' } },
    { at: 'brokenBy', name: 'broken by', begins: { damage: 1, movement: true }, fits: (e) => lasts(e) },
    { at: 'broken', name: 'what breaking costs', begins: { costs: 0.5, cooldown: 0.5 }, fits: (e) => lasts(e) },
    { at: 'target/range', name: 'range', begins: 300, fits: (e) => (e['target'] as { at?: string } | undefined)?.at === 'direction' },
    { at: 'deliver/lasts', name: 'area stays', begins: '2s', fits: (e) => (e['deliver'] as { by?: string } | undefined)?.by === 'area' },
    { at: 'onStart', name: 'when it begins', begins: [] },
    { at: 'onHit', name: 'when it hits', begins: [] },
    { at: 'onMiss', name: 'when it misses', begins: [] },
    { at: 'onBreak', name: 'when it breaks', begins: [], fits: (e) => lasts(e) },
    { at: 'tooltip', name: 'tooltip', begins: { text: 'Ready again after {ability.cooldown} s.' } },
    NOTE,
  ];

  protected kindOf(requirement: Requirement): string {
    return 'if' in requirement ? 'if' : 'has' in requirement ? 'has' : 'hasNot';
  }

  protected addCost(): void {
    void this.add('costs', { attribute: this.payable()[0].id, amount: 10 });
  }

  protected addRequirement(kind: 'if' | 'has' | 'hasNot'): void {
    const [first] = this.payable();
    const begins = kind === 'if' ? { if: first ? `${first.id} >= 1` : 'true', says: 'Not yet.' } : { [kind]: this.statuses()[0].id };
    void this.add<unknown>('requires', begins);
  }

  /** Another aim: what was said of the old one that means something here too is kept. What can't be aimed so is not delivered so. */
  protected aimAt(at: string): Promise<void> {
    const before = (this.context.value('target') ?? {}) as Readonly<Record<string, unknown>>;
    const keeps = Object.fromEntries(
      ['range', 'who', 'sight'].filter((key) => key in before && fitsAim(at, key)).map((key) => [key, before[key]]),
    );
    const by = this.delivery();
    // What can't be aimed so is not delivered so; in a direction something has to fly.
    const clash = (by === 'area' && at === 'cone') || (by === 'projectile' && (at === 'self' || at === 'nearest'));
    const flies = at === 'direction' && by !== 'projectile';
    return this.putAll({
      target: at === 'self' ? undefined : { at, ...AIM_BEGINS[at], ...keeps },
      ...(clash && { deliver: undefined }),
      ...(flies && { deliver: { by: 'projectile', speed: 300, lifetime: '1s' } }),
    });
  }

  /** Another way to reach them; where it can't be aimed as before, it is aimed as it can. */
  protected deliver(by: string): Promise<void> {
    const aim = this.aim();
    if (by === 'projectile')
      return this.putAll({
        deliver: { by, speed: 300, lifetime: '1s' },
        ...((aim === 'self' || aim === 'nearest') && { target: { at: 'direction' } }),
      });
    if (by === 'area')
      return this.putAll({
        deliver: { by, radius: 60 },
        ...((aim === 'direction' || aim === 'cone') && { target: { at: 'point', range: 200 } }),
      });
    return this.putAll({ deliver: undefined, ...(aim === 'direction' && { target: undefined }) });
  }
}

const lasts = (entry: Readonly<Record<string, unknown>>) => entry['cast'] !== undefined || entry['channel'] !== undefined;
const fitsAim = (at: string, key: string) =>
  at !== 'self' && (key === 'range' || (key === 'who' ? at !== 'point' && at !== 'direction' : at !== 'direction'));
