import { ANY, exactly, type Known, parseFormula, type Range, rangeOf } from '../formula/index.js';
import type { ActorEntry } from '../concepts/actors/index.js';
import { everyAction } from '../ruleset/actions.js';
import type { Rules } from '../ruleset/rules.js';
import { entriesIn } from '../ruleset/chapter.js';

interface AttributeEntry {
  readonly id: string;
  readonly kind: 'pool' | 'stat' | 'counter';
  readonly start?: unknown;
  readonly min?: number | string;
  readonly max?: number | string;
}

/** What can be true of actors under these rules, whatever happens: for saying of a condition that nobody can ever meet it. */
export class Possible {
  private readonly types: readonly ActorEntry[];
  private readonly attributes: ReadonlyMap<string, AttributeEntry>;
  /** Attributes that something raises, and those whose value anything else moves. */
  private readonly raised = new Set<string>();
  private readonly moved = new Set<string>();
  private readonly hurt = new Set<string>();
  /** How often an offer can be held, as far as shops sell it. */
  private readonly tiers = new Map<string, number>();
  private readonly levels = new Map<string, number>();
  private readonly granted = new Set<string>();
  private readonly applied = new Set<string>();

  constructor(rules: Rules) {
    const entries = <T>(chapter: string) => entriesIn<T>(rules, chapter);
    this.types = entries<ActorEntry>('actors');
    this.attributes = new Map(entries<AttributeEntry>('attributes').map((entry) => [entry.id, entry]));
    const { situations: _tried, ...document } = rules.document;
    for (const action of everyAction(document)) {
      const attribute = String(action['attribute']);
      if (['heal', 'give', 'set'].includes(action.do)) this.raised.add(attribute);
      if (['hurt', 'take'].includes(action.do)) this.moved.add(attribute);
      if (action.do === 'hurt') this.hurt.add(attribute);
      if (action.do === 'trade')
        for (const part of (action['gets'] ?? []) as readonly { attribute: string }[]) this.raised.add(part.attribute);
      if (action.do === 'grant') this.granted.add(String(action['status']));
      if (action.do === 'apply') this.applied.add(String(action['effect']));
    }
    for (const container of entries<{ holds: readonly { gives?: string }[] }>('containers'))
      for (const { gives } of container.holds) if (gives !== undefined) this.raised.add(gives);
    for (const table of entries<Readonly<Record<'always' | 'entries', readonly { gives?: string }[]>>>('loot'))
      for (const { gives } of [...table.always, ...table.entries]) if (gives !== undefined) this.raised.add(gives);
    const sold = new Set(entries<{ sells: readonly string[] }>('shops').flatMap(({ sells }) => sells));
    for (const { id, gets, tiers, atMost } of entries<{
      id: string;
      gets: readonly { attribute: string }[];
      tiers?: number;
      atMost?: number;
    }>('offers')) {
      for (const { attribute } of gets) this.raised.add(attribute);
      this.tiers.set(id, sold.has(id) ? (tiers ?? atMost ?? Infinity) : 0);
    }
    for (const { id, levels, growth } of entries<{ id: string; levels: number; growth?: readonly { attribute: string }[] }>('tracks')) {
      this.levels.set(id, levels);
      for (const { attribute } of growth ?? []) this.moved.add(attribute);
    }
    // What is sold is paid for in money.
    const economy = rules.document['economy'] as { currency: string } | undefined;
    if (economy && entries('markets').length > 0) this.raised.add(economy.currency);
    for (const effect of entries<{ modifiers: readonly { attribute: string }[]; grants: readonly string[] }>('effects')) {
      for (const { attribute } of effect.modifiers) this.moved.add(attribute);
      for (const status of effect.grants) this.granted.add(status);
    }
  }

  /**
   * The kinds of actor of which a condition may hold at some time; of none where it never can.
   * @param call what else is known of a function of an entry
   */
  whoCan(
    condition: string,
    kinds: readonly ActorEntry['kind'][] = ['player', 'foe', 'character', 'prop'],
    call: (name: string, entry: string) => Range | undefined = () => undefined,
  ): readonly ActorEntry[] {
    const node = parseFormula(condition);
    return this.types.filter((type) => kinds.includes(type.kind) && rangeOf(node, this.knownOf(type, call)).high > 0);
  }

  /** Whether anything hurts an attribute. */
  isHurt(attribute: string): boolean {
    return this.hurt.has(attribute);
  }

  /** Whether anything grants a status. */
  isGranted(status: string): boolean {
    return this.granted.has(status);
  }

  /** Whether anything moves a stat from its base, or an amount from where it begins. */
  isMoved(attribute: string): boolean {
    return this.moved.has(attribute) || this.raised.has(attribute);
  }

  /** Whether anybody of a kind can ever have this much of an attribute. */
  canHave(attribute: string, amount: number, kind: ActorEntry['kind'] = 'player'): boolean {
    return this.types.some((type) => type.kind === kind && this.of(type, attribute).high >= amount);
  }

  /** Whether a condition on an event may hold for anybody at some time. */
  mayFollow(condition: string, event: (name: string) => Range): boolean {
    const node = parseFormula(condition);
    return this.types.some((type) => {
      const own = this.knownOf(type, () => undefined);
      const name = (party: string | null, of: string) => (party === 'event' ? event(of) : party === null ? own.name(party, of) : ANY);
      return rangeOf(node, { ...own, name }).high > 0;
    });
  }

  private knownOf(type: ActorEntry, otherwise: (name: string, entry: string) => Range | undefined): Known {
    return {
      name: (party, name) => (party === null || party === 'source' ? this.of(type, name) : ANY),
      call: (party, name, entry) => {
        if (party !== null && party !== 'source') return ANY;
        if (name === 'has') return this.granted.has(entry) ? { low: 0, high: 1 } : exactly(0);
        if (name === 'count') return this.applied.has(entry) ? { low: 0, high: Infinity } : exactly(0);
        if (name === 'tier') return { low: 0, high: this.tiers.get(entry) ?? Infinity };
        if (name === 'level') return { low: 1, high: this.levels.get(entry) ?? Infinity };
        return otherwise(name, entry) ?? ANY;
      },
    };
  }

  /** Between what an attribute of a kind of actor can be. Nobody has what their kind does not: that reads as 0. */
  private of(type: ActorEntry, id: string, depth = 0): Range {
    const attribute = this.attributes.get(id);
    const carried = type.attributes.find((one) => one.attribute === id);
    if (!attribute || depth > 8) return ANY;
    if (!carried) return exactly(0);
    const bound = (value: number | string | undefined, otherwise: number): Range =>
      value === undefined
        ? exactly(otherwise)
        : typeof value === 'number'
          ? exactly(value)
          : this.attributes.has(value)
            ? this.of(type, value, depth + 1)
            : ANY;
    const low = bound(attribute.min, attribute.kind === 'stat' ? -Infinity : 0).low;
    const { high } = bound(attribute.max, Infinity);
    const start = carried.start ?? attribute.start ?? (attribute.kind === 'pool' ? undefined : 0);
    const known = typeof start === 'number';
    if (attribute.kind === 'stat')
      return known && !this.moved.has(id) && !this.raised.has(id)
        ? exactly(start)
        : { low: attribute.min === undefined ? -Infinity : low, high };
    if (attribute.kind === 'counter' && known && !this.raised.has(id)) return { low, high: Math.min(high, Math.max(low, start)) };
    return { low, high };
  }
}
