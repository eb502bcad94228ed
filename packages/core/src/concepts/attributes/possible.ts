import equal from 'fast-deep-equal';
import { ANY, exactly, type Known, parseFormula, type Range, rangeOf } from '../../formula/index.js';
import { collect } from '../../analysis/collect.js';
import { question, type Question } from '../../ruleset/questions.js';
import { registry } from '../../ruleset/registry.js';
import type { Rules } from '../../ruleset/rules.js';
import type { Consequence } from '../../world/concept.js';
import { actorChapter, type ActorEntry } from '../actors/schema.js';
import { attributeChapter, type AttributeEntry } from './schema.js';

/** What can be true of actors under these rules: worked out once, for all who ask. */
export const possibleUnder: Question<Possible> = question((rules) => new Possible(rules));

/** What a concept's entries can bring about, or what actions anywhere can. */
const broughtAbout: Question<readonly Consequence[]> = question((rules, concept) => {
  const { actions, concepts } = registry();
  if (concept !== '') return concepts.find(({ id }) => id === concept)!.consequences?.(rules) ?? [];
  return collect(rules).actions.flatMap(({ action }) => actions.get(action.do)?.consequences?.(action) ?? []);
}, equal);

/** What is asked of an attribute: between what it can be, and where it begins. */
type Bounds = Pick<AttributeEntry, 'id' | 'kind' | 'min' | 'max' | 'start'>;
const boundsUnder: Question<readonly Bounds[]> = question(
  (rules) => attributeChapter.of(rules).map(({ id, kind, min, max, start }) => ({ id, kind, min, max, start })),
  equal,
);

/** What can be true of actors under these rules, whatever happens: for saying of a condition that nobody can ever meet it. */
export class Possible {
  private readonly types: readonly ActorEntry[];
  private readonly attributes: ReadonlyMap<string, Bounds>;
  /** Attributes that something raises, and those whose value anything else moves. */
  private readonly raised = new Set<string>();
  private readonly moved = new Set<string>();
  private readonly hurt = new Set<string>();
  /** Entries that something brings about, as `chapter/id`. */
  private readonly there = new Set<string>();

  constructor(private readonly rules: Rules) {
    this.types = actorChapter.of(rules);
    this.attributes = new Map(boundsUnder(rules).map((bounds) => [bounds.id, bounds]));
    this.note(broughtAbout(rules));
    for (const { id } of registry().concepts) this.note(broughtAbout(rules, id));
  }

  private note(consequences: readonly Consequence[]): void {
    for (const { chapter, id, is } of consequences) {
      if (is === 'raised') this.raised.add(id);
      else if (is === 'moved') this.moved.add(id);
      else if (is === 'hurt') {
        this.moved.add(id);
        this.hurt.add(id);
      } else this.there.add(`${chapter}/${id}`);
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
    return this.there.has(`statuses/${status}`);
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
        const { chapter, between } = this.rules.vocabulary.functions.find((one) => one.name === name && one.ids.length > 0) ?? {};
        if (between) return between(this.rules, entry, this.there.has(`${chapter}/${entry}`));
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
