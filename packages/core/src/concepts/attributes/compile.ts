import type { FormulaFunction, FormulaReference } from '../../formula/index.js';
import type { Amount, CompileContext, CompiledThen } from '../../ruleset/context.js';
import type { StartSource } from '../../ruleset/fields.js';
import { grouped } from '../../ruleset/grouped.js';
import { eachInPart } from '../../ruleset/parts.js';
import type { Visibility } from '../../world/columns.js';
import type { ActorEntry } from '../actors/index.js';
import { checkNeeds, checkNumbers } from './numbers.js';
import type { AttributeEntry } from './schema.js';

/** What an attribute begins with: an amount, or a share of its maximum. */
export interface Start {
  readonly amount?: Amount;
  readonly share?: number;
}

export interface Refill {
  /** Per second. */
  readonly rate: Amount;
  /** Ticks between two applications. */
  readonly every: number;
  /** Seconds that one application stands for. */
  readonly seconds: number;
  /** Ticks of rest after a loss. */
  readonly pause: number;
  readonly while: FormulaFunction | undefined;
  /** What its rate and its condition read. */
  readonly reads: readonly FormulaReference[];
  /** They read only what is told when it moves: they need not be asked every tick. */
  readonly steady: boolean;
}

/** A range with what follows on either side of its edge. */
export interface Threshold {
  readonly id: string;
  readonly end: 'empty' | 'full' | undefined;
  readonly from: Amount | undefined;
  readonly to: Amount | undefined;
  readonly margin: Amount | undefined;
  /** Its ends read only what is told when it moves. */
  readonly steady: boolean;
  readonly enter: CompiledThen;
  readonly leave: CompiledThen;
}

/** An attribute as worlds run it. Times are ticks. */
export interface Attribute {
  readonly id: string;
  readonly label: string;
  readonly formerly: readonly string[];
  readonly kind: AttributeEntry['kind'];
  readonly whole: boolean;
  readonly see: Visibility;
  readonly decimals: number;
  readonly saved: boolean;
  readonly min: Amount;
  readonly max: Amount | undefined;
  readonly follow: AttributeEntry['follow'];
  readonly refill: Refill | undefined;
  /** How much of what hurts it gets through. */
  readonly taken: Amount | undefined;
  readonly thresholds: readonly Threshold[];
  /** By actor type: whether it has the attribute, and its start. */
  readonly present: readonly boolean[];
  readonly starts: readonly Start[];
  /** The attributes of the same actor that its bounds and its starts read, by id. */
  readonly bounds: readonly string[];
  /** Its bounds read something that changes without a modifier being applied: a pool, a counter, a status. */
  readonly restless: boolean;
}

export interface CompiledAttributes {
  readonly list: readonly Attribute[];
  readonly entries: readonly AttributeEntry[];
  /** Positions in the order in which values follow from each other: what a bound reads comes first. */
  readonly order: readonly number[];
  /** By kind of actor: those that it has, in the same order. */
  readonly ofType: readonly (readonly number[])[];
}

export const CHAPTER = 'attributes';

/** That a kind of actor has an attribute, and where in its list. */
export interface Holding {
  readonly attribute: string;
  readonly type: number;
  readonly place: number;
  readonly start: AttributeEntry['start'];
}

export function* compileAttributes(context: CompileContext): Generator<void, CompiledAttributes> {
  const entries = context.entries<AttributeEntry>(CHAPTER);
  const types = context.entries<ActorEntry>('actors');
  const holdings = grouped(
    types.flatMap(({ attributes }, type) => attributes.map(({ attribute, start }, place): Holding => ({ attribute, type, place, start }))),
    ({ attribute }) => attribute,
  );
  const holdersOf = ({ id }: AttributeEntry) => holdings.get(id) ?? [];
  const list = yield* context.each(
    'attributes',
    entries,
    (entry, i) => compileOne(context, entry, i, types.length, holdersOf(entry)),
    (entry) => [types.length, ...holdersOf(entry).flatMap(({ type, place, start }) => [type, place, start])],
  );
  const reads = list.map(({ bounds }) => [...new Set(bounds.map((id) => context.index(CHAPTER, id)))]);
  const order = inOrder(context, entries, reads);
  yield* eachInPart(entries, (entry, i) => {
    checkNumbers(context, entry, i, list, holdersOf(entry));
    checkNeeds(context, entry, list[i], list);
  });
  const restless = new Set<number>();
  for (const i of order) {
    const bounds = [list[i].min, list[i].max].flatMap((a) => a?.references ?? []);
    const stirs = bounds.some(
      (r) => r.chapter !== CHAPTER || entries[context.index(CHAPTER, r.id)].kind !== 'stat' || restless.has(context.index(CHAPTER, r.id)),
    );
    if (stirs) restless.add(i);
  }
  const steady = (read: readonly FormulaReference[]) => read.every((r) => isSteady(context, entries, restless, r));
  const edges = ({ from, to, margin }: Threshold) => [from, to, margin].flatMap((end) => end?.references ?? []);
  const settled = yield* context.each(
    'settled',
    list,
    ({ refill, thresholds, ...attribute }, i): Attribute => ({
      ...attribute,
      restless: restless.has(i),
      refill: refill && { ...refill, steady: steady(refill.reads) },
      thresholds: thresholds.map((threshold) => ({ ...threshold, steady: steady(edges(threshold)) })),
    }),
    ({ refill, thresholds }, i) => [restless.has(i), steady(refill?.reads ?? []), ...thresholds.map((t) => steady(edges(t)))],
  );
  const ofType = types.map((_, type) => order.filter((i) => settled[i].present[type]));
  return { entries, order, list: settled, ofType };
}

/** Whether what a formula reads moves only when its actor is settled or a status of its changes. */
function isSteady(
  context: CompileContext,
  entries: readonly AttributeEntry[],
  restless: ReadonlySet<number>,
  { chapter, id, party }: FormulaReference,
): boolean {
  if (party !== null) return false;
  if (chapter === 'statuses' || chapter === 'curves') return true;
  const index = context.index(CHAPTER, id);
  return chapter === CHAPTER && entries[index].kind === 'stat' && !restless.has(index);
}

export function startOf(context: CompileContext, source: StartSource | 'full', path: readonly (string | number)[]): Start {
  if (source === 'full') return { share: 1 };
  if (typeof source === 'object' && 'share' in source) return { share: source.share };
  return { amount: context.amount(source, path) };
}

/**
 * @param types how many kinds of actor there are
 * @param holders those that have it
 */
function compileOne(context: CompileContext, entry: AttributeEntry, i: number, types: number, holders: readonly Holding[]): Attribute {
  const path = [CHAPTER, i];
  const own = entry.start === undefined ? undefined : startOf(context, entry.start, [...path, 'start']);
  const fallback: Start =
    entry.kind === 'pool' && entry.max !== undefined
      ? { share: 1 }
      : { amount: context.amount(typeof entry.min === 'number' ? Math.max(0, entry.min) : 0, path) };
  checkShape(context, entry, path);
  const present = new Array<boolean>(types).fill(false);
  const starts = new Array<Start>(types).fill(own ?? fallback);
  // From the end: what a kind has twice, which is told elsewhere, is what it has first.
  for (const { type, place, start } of [...holders].reverse()) {
    present[type] = true;
    starts[type] = start === undefined ? (own ?? fallback) : startOf(context, start, ['actors', type, 'attributes', place, 'start']);
  }
  const whole = entry.whole || entry.kind === 'counter';
  const min = context.amount(entry.min, [...path, 'min']);
  const max = entry.max === undefined ? undefined : context.amount(entry.max, [...path, 'max']);
  const bounds = [min, max, own?.amount, ...holders.map(({ type }) => starts[type].amount)]
    .flatMap((amount) => amount?.references ?? [])
    .filter(({ chapter, party }) => chapter === CHAPTER && party === null);
  return {
    id: entry.id,
    label: entry.label,
    formerly: entry.formerly ?? [],
    kind: entry.kind,
    whole,
    see: entry.see,
    decimals: whole ? 0 : (entry.decimals ?? 1),
    saved: entry.kind === 'counter' || entry.saved === true,
    min,
    max,
    bounds: [...new Set(bounds.map(({ id }) => id))],
    follow: entry.follow,
    refill: compileRefill(context, entry, path),
    taken: entry.taken === undefined ? undefined : context.amount(entry.taken, [...path, 'taken'], ['source'], ['asked']),
    thresholds: compileThresholds(context, entry, path),
    present,
    starts,
    restless: false,
  };
}

function checkShape(context: CompileContext, entry: AttributeEntry, path: readonly (string | number)[]): void {
  const { kind, label, max } = entry;
  if (entry.refill && kind === 'stat')
    context.problem([...path, 'refill'], `A stat does not refill: its value follows from its base and modifiers. Make ${label} a pool.`);
  if (kind === 'counter' && !entry.whole && entry.decimals)
    context.problem([...path, 'decimals'], 'A counter counts whole things: leave the decimals out.');
  if (entry.taken !== undefined && kind === 'stat')
    context.problem([...path, 'taken'], `A stat is not hurt, so nothing is taken from it. Put the resistance on the pool that is.`);
  if (entry.follow !== 'keep' && (kind !== 'pool' || max === undefined))
    context.problem([...path, 'follow'], `${label} has no maximum to follow: only a pool with a maximum does.`);
  const shares = typeof entry.start === 'object' && 'share' in entry.start;
  if ((entry.start === 'full' || shares) && max === undefined)
    context.problem([...path, 'start'], `${label} has no maximum that it could start with a share of.`);
}

function compileRefill(context: CompileContext, entry: AttributeEntry, path: readonly (string | number)[]): Refill | undefined {
  if (!entry.refill) return undefined;
  const { rate, every: interval, pause, while: test } = entry.refill;
  const every = interval === undefined ? 1 : context.ticks(interval);
  if (every < 1) context.problem([...path, 'refill', 'every'], 'An interval is longer than nothing.');
  const amount = context.amount(rate, [...path, 'refill', 'rate']);
  const condition = test === undefined ? undefined : context.formula(test, 'condition', []);
  return {
    rate: amount,
    every,
    seconds: every / context.tickRate,
    pause: pause === undefined ? 0 : context.ticks(pause),
    while: condition?.run,
    reads: [...amount.references, ...(condition?.references ?? [])],
    steady: false,
  };
}

function compileThresholds(context: CompileContext, entry: AttributeEntry, path: readonly (string | number)[]): readonly Threshold[] {
  const ids = entry.thresholds.map((t) => t.id);
  return entry.thresholds.map((threshold, k) => {
    const at = [...path, 'thresholds', k];
    context.alias(at, threshold.id);
    const { end, from, to, margin } = threshold;
    if (ids.indexOf(threshold.id) < k) context.problem([...at, 'id'], `${entry.label} has a threshold ${threshold.id} already.`);
    if ((end === undefined) === (from === undefined && to === undefined))
      context.problem(at, 'A threshold is either at an end (empty, full) or goes from, to, or from and to a value.');
    if (end === 'full' && entry.max === undefined)
      context.problem([...at, 'end'], `${entry.label} has no maximum at which it could be full.`);
    const amount = (field: 'from' | 'to' | 'margin') =>
      threshold[field] === undefined ? undefined : context.amount(threshold[field], [...at, field]);
    if (typeof from === 'number' && typeof to === 'number' && from > to)
      context.problem([...at, 'from'], `The range goes from ${from} to ${to}: the lower end comes first.`);
    if (typeof margin === 'number' && margin < 0) context.problem([...at, 'margin'], 'A margin is not negative.');
    return {
      id: threshold.id,
      end,
      from: amount('from'),
      to: amount('to'),
      margin: amount('margin'),
      steady: false,
      // By the threshold's own id: what waits in its list is found again after another threshold was put before it.
      enter: context.then(threshold.enter, [...at, 'enter']),
      leave: context.then(threshold.leave, [...at, 'leave']),
    };
  });
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
