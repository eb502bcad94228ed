import type { Amount, CompileContext } from '../../ruleset/context.js';
import type { Visibility } from '../../world/table.js';
import type { ActorEntry } from '../actors/index.js';
import type { AttributeEntry } from './schema.js';

/** An attribute as worlds run it. Times are ticks, the rate is per application. */
export interface Attribute {
  readonly id: string;
  readonly kind: AttributeEntry['kind'];
  readonly whole: boolean;
  readonly see: Visibility;
  readonly decimals: number;
  readonly saved: boolean;
  readonly min: Amount;
  readonly max: Amount | undefined;
  readonly refill: { readonly rate: Amount; readonly every: number; readonly seconds: number; readonly pause: number } | undefined;
  /** What its author says of its start, whoever carries it. */
  readonly own: Amount | undefined;
  /** By actor type: whether it has the attribute, and its start; undefined starts full. */
  readonly present: readonly boolean[];
  readonly starts: readonly (Amount | undefined)[];
  /** Its bounds read something that changes without a modifier being applied: a pool, a counter, a status. */
  readonly restless: boolean;
}

export interface CompiledAttributes {
  readonly list: readonly Attribute[];
  readonly entries: readonly AttributeEntry[];
  /** Positions in the order in which values follow from each other: what a bound reads comes first. */
  readonly order: readonly number[];
}

const CHAPTER = 'attributes';

export function compileAttributes(context: CompileContext): CompiledAttributes {
  const entries = context.entries<AttributeEntry>(CHAPTER);
  const types = context.entries<ActorEntry>('actors');
  const list = entries.map((entry, i) => compileOne(context, entry, i, types));
  const reads = list.map((attribute) => {
    const amounts = [attribute.min, attribute.max, attribute.own, ...attribute.starts].flatMap((amount) => amount?.references ?? []);
    const own = amounts.filter((read) => read.chapter === CHAPTER && read.party === null);
    return [...new Set(own.map((read) => context.index(CHAPTER, read.id)))];
  });
  const order = inOrder(context, entries, reads);
  entries.forEach((entry, i) => checkNumbers(context, entry, i, list, types));
  const restless = new Set<number>();
  for (const i of order) {
    const bounds = [list[i].min, list[i].max].flatMap((a) => a?.references ?? []);
    const stirs = bounds.some(
      (r) => r.chapter !== CHAPTER || entries[context.index(CHAPTER, r.id)].kind !== 'stat' || restless.has(context.index(CHAPTER, r.id)),
    );
    if (stirs) restless.add(i);
  }
  return { entries, order, list: list.map((attribute, i) => ({ ...attribute, restless: restless.has(i) })) };
}

function compileOne(context: CompileContext, entry: AttributeEntry, i: number, types: readonly ActorEntry[]): Attribute {
  const path = [CHAPTER, i];
  const own = entry.start === undefined ? undefined : context.amount(entry.start, [...path, 'start']);
  const fallback =
    entry.kind === 'pool' && entry.max !== undefined
      ? undefined
      : context.amount(typeof entry.min === 'number' ? Math.max(0, entry.min) : 0, path);
  const holdings = types.map((type) => type.attributes.find((a) => a.attribute === entry.id));
  const every = entry.refill?.every === undefined ? 1 : context.ticks(entry.refill.every);
  if (entry.refill && entry.kind === 'stat')
    context.problem(
      [...path, 'refill'],
      `A stat does not refill: its value follows from its base and modifiers. Make ${entry.label} a pool.`,
    );
  if (every < 1) context.problem([...path, 'refill', 'every'], 'An interval is longer than nothing.');
  if (entry.kind === 'counter' && entry.whole === false && entry.decimals)
    context.problem([...path, 'decimals'], 'A counter counts whole things: leave the decimals out.');
  return {
    id: entry.id,
    kind: entry.kind,
    whole: entry.whole || entry.kind === 'counter',
    see: entry.see,
    decimals: entry.whole || entry.kind === 'counter' ? 0 : (entry.decimals ?? 1),
    saved: entry.kind === 'counter' || entry.saved === true,
    min: context.amount(entry.min, [...path, 'min']),
    max: entry.max === undefined ? undefined : context.amount(entry.max, [...path, 'max']),
    refill: entry.refill && {
      rate: context.amount(entry.refill.rate, [...path, 'refill', 'rate']),
      every,
      seconds: every / context.tickRate,
      pause: entry.refill.pause === undefined ? 0 : context.ticks(entry.refill.pause),
    },
    own,
    present: holdings.map((h) => h !== undefined),
    starts: holdings.map((h, t) => {
      const k = types[t].attributes.findIndex((a) => a.attribute === entry.id);
      return h?.start === undefined ? (own ?? fallback) : context.amount(h.start, ['actors', t, 'attributes', k, 'start']);
    }),
    restless: false,
  };
}

/** Puts what is read before what reads it. A circle is reported once, with all its members, and read as if it ended. */
function inOrder(context: CompileContext, entries: readonly AttributeEntry[], reads: readonly (readonly number[])[]): number[] {
  const order: number[] = [];
  const state = entries.map(() => 'new' as 'new' | 'open' | 'done');
  const trail: number[] = [];
  const visit = (i: number) => {
    if (state[i] === 'done') return;
    if (state[i] === 'open') {
      const circle = [...trail.slice(trail.indexOf(i)), i].map((k) => entries[k].id);
      const field = [entries[i].max, entries[i].min].some((bound) => typeof bound === 'string')
        ? typeof entries[i].max === 'string'
          ? 'max'
          : 'min'
        : 'start';
      context.problem([CHAPTER, i, field], `This goes in a circle: ${circle.join(' needs ')}. One of them has to stand on its own.`);
      return;
    }
    state[i] = 'open';
    trail.push(i);
    for (const read of reads[i]) visit(read);
    trail.pop();
    state[i] = 'done';
    order.push(i);
  };
  entries.forEach((_, i) => visit(i));
  return order;
}

/**
 * What numbers alone can tell: a minimum above the maximum, a start beyond a bound. A bare name is followed to the number
 * it starts with; a formula that computes is left to the running world, which keeps every value between its bounds.
 */
function checkNumbers(
  context: CompileContext,
  entry: AttributeEntry,
  i: number,
  all: readonly Attribute[],
  types: readonly ActorEntry[],
): void {
  const attribute = all[i];
  const atStart = (amount: Amount | undefined, type: number, depth = 0): number | undefined => {
    if (!amount?.bare || depth > 8) return amount?.constant;
    const target = all[context.index(CHAPTER, amount.bare.id)];
    return atStart(target.starts[type] ?? target.max, type, depth + 1);
  };
  const holders = types.map((_, t) => t).filter((t) => attribute.present[t]);
  for (const t of holders.length > 0 ? holders : [types.length]) {
    const low = atStart(attribute.min, t);
    const high = atStart(attribute.max, t);
    if (low !== undefined && high !== undefined && low > high)
      return context.problem([CHAPTER, i, 'min'], `The minimum ${low} is above the maximum ${high}.`);
    const own = types[t]?.attributes.findIndex((a) => a.attribute === entry.id && a.start !== undefined) ?? -1;
    const path = own >= 0 ? ['actors', t, 'attributes', own, 'start'] : [CHAPTER, i, 'start'];
    const start = atStart(attribute.starts[t] ?? (entry.start === undefined ? undefined : context.amount(entry.start, path)), t);
    if (start === undefined) continue;
    if (high !== undefined && start > high) return context.problem(path, `The start ${start} is above the maximum ${high}.`);
    if (low !== undefined && start < low) return context.problem(path, `The start ${start} is below the minimum ${low}.`);
    if (attribute.whole && start !== Math.floor(start))
      return context.problem(path, `${entry.label} is a whole number, and ${start} is not.`);
  }
}
