import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { entriesOf } from '../entries';
import { Carriers } from '../spec/carriers';
import { Choose, type Way } from '../spec/choose';
import { type Clause, Clauses } from '../spec/clauses';
import { choice } from '../spec/choices';
import { Names } from '../spec/names';
import { Note, NOTE } from '../spec/note';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecFields } from '../spec/spec-fields';
import { ThenList } from '../spec/then-list';

const AT_ONCE: Way = { value: 'once', label: 'at once', hint: 'nothing is on its way' };
/** What a target asks for, to begin with. */
const AIM_BEGINS: Readonly<Record<string, Readonly<Record<string, unknown>>>> = {
  actor: { range: 200 },
  point: { range: 200 },
  cone: { range: 160, angle: 60 },
  nearest: { range: 200, count: 1 },
};

type Requirement = Readonly<Record<string, unknown>>;

/** An ability in sentences. */
@Component({
  selector: 'ee-ability-sentences',
  imports: [Part, Sentence, Clauses, Choose, Names, ThenList, Carriers, Note],
  templateUrl: './ability-sentences.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AbilitySentences extends SpecFields {
  protected readonly deliveries = computed(() => [AT_ONCE, ...this.options('deliver')]);
  protected readonly cools = choice({ onStart: 'its beginning', onFinish: 'the end of its cast' });
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
