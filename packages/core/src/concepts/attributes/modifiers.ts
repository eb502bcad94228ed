import type { World } from '../../world/world.js';
import { type Operation, OPERATIONS } from './schema.js';
import type { Attributes } from './state.js';

/** The parts that a value is made of. */
export interface Sums {
  readonly add: number;
  readonly percent: number;
  readonly times: number;
  /** The lowest `set`, the highest `atLeast`, the lowest `atMost`; undefined where none is on. */
  readonly set: number | undefined;
  readonly atLeast: number | undefined;
  readonly atMost: number | undefined;
}

const NO_SUMS: Sums = { add: 0, percent: 0, times: 1, set: undefined, atLeast: undefined, atMost: undefined };

/** What one modifier comes to with its stacks: sums grow by as much again, a product is taken as often. */
export function stacked(operation: number, amount: number, stacks: number): number {
  if (stacks === 1) return amount;
  if (operation < 2) return amount * stacks;
  if (operation > 2) return amount;
  let product = 1;
  for (let i = 0; i < stacks; i++) product *= amount;
  return product;
}

/** Sums an actor's modifiers of one attribute, smallest amounts first: the order of coming and going leaves no trace. */
export function sumModifiers(world: World, a: Attributes, row: number, index: number): Sums {
  const { attribute, operation, amount, stacks, muted, next } = a.of;
  let lists: number[][] | undefined;
  let seen = 0;
  for (let at = a.heads.cells.first[row]; at !== 0; at = next[at - 1]) {
    const k = at - 1;
    seen++;
    if (attribute[k] !== index || muted[k] === 1) continue;
    lists ??= OPERATIONS.map(() => []);
    lists[operation[k]].push(stacked(operation[k], amount[k], stacks[k]));
  }
  // A value is whole whatever the tick has left: what it costs is missing for what comes after.
  world.lookThrough(seen);
  if (!lists) return NO_SUMS;
  const [add, percent, times, set, atLeast, atMost] = lists.map((list) => (list.length > 1 ? list.sort((x, y) => x - y) : list));
  return {
    add: add.reduce((sum, x) => sum + x, 0),
    percent: percent.reduce((sum, x) => sum + x, 0),
    times: times.reduce((product, x) => product * x, 1),
    set: set[0],
    atLeast: atLeast.at(-1),
    atMost: atMost[0],
  };
}

/** The value before its bounds: `clamp(set ?? (base + add) x (1 + percent) x times, atLeast, atMost)`. Percents are authored as 40 for +40 %. */
export function combine(base: number, { add, percent, times, set, atLeast, atMost }: Sums): number {
  const value = set ?? (base + add) * (1 + percent / 100) * times;
  const high = atLeast !== undefined && value < atLeast ? atLeast : value;
  return atMost !== undefined && high > atMost ? atMost : high;
}

/** A modifier to be put on an actor. */
interface NewModifier {
  readonly source: number;
  readonly attribute: number;
  readonly operation: Operation;
  readonly amount: number;
  readonly stacks?: number;
  /** The number of an amount that the rules keep, where it is to be asked again and again. */
  readonly live?: number;
  /** Whatever took it on, to be named when it ends, and which of that one's modifiers it is. */
  readonly holder: number;
  readonly part: number;
}

/** Adds a modifier to an actor. The caller settles the actor. */
export function addModifier(a: Attributes, row: number, actor: number, modifier: NewModifier): void {
  const first = a.heads.cells.first;
  const { source, attribute, operation, amount, stacks = 1, live = 0, holder, part } = modifier;
  const at = a.modifiers.insert({
    actor,
    source,
    attribute,
    operation,
    amount,
    stacks,
    live,
    holder,
    part,
    next: first[row],
  });
  first[row] = at + 1;
}

/** The rows of an actor's modifiers of one holder. */
export function modifiersOf(a: Attributes, row: number, holder: number): readonly number[] {
  const rows: number[] = [];
  for (let at = a.heads.cells.first[row]; at !== 0; at = a.of.next[at - 1]) if (a.of.holder[at - 1] === holder) rows.push(at - 1);
  return rows;
}

/** Has an actor's modifiers count or not, as is said for their holders; those of others stay as they are. */
export function muteModifiers(a: Attributes, row: number, holders: ReadonlyMap<number, number>): void {
  const { holder, muted, next } = a.of;
  for (let at = a.heads.cells.first[row]; at !== 0; at = next[at - 1]) muted[at - 1] = holders.get(holder[at - 1]) ?? muted[at - 1];
}

/** Takes an actor's modifiers of one holder away. The caller settles the actor. */
export function removeModifiers(a: Attributes, row: number, holder: number): void {
  const { modifiers, heads } = a;
  const holders = a.of.holder;
  const next = a.of.next;
  const first = heads.cells.first;
  let before = -1;
  for (let at = first[row]; at !== 0;) {
    const following = next[at - 1];
    if (holders[at - 1] === holder) {
      if (before < 0) first[row] = following;
      else next[before] = following;
      modifiers.remove(at - 1);
    } else before = at - 1;
    at = following;
  }
}

/** What it costs to work out a live amount, in rows that are looked through. */
const ROWS_OF_AMOUNT = 8;

/** The parties of a live amount; one object for all, since they are asked at every change. */
const asking = { owner: 0, source: 0, target: 0 };

/** Asks an actor's live amounts again. Whether any has moved. */
export function refreshLive(world: World, a: Attributes, row: number): boolean {
  if (world.rules.amounts.size === 0) return false;
  const { live, amount, source, actor, next } = a.of;
  let moved = false;
  let seen = 0;
  for (let at = a.heads.cells.first[row]; at !== 0; at = next[at - 1]) {
    const k = at - 1;
    seen++;
    const asked = live[k] === 0 ? undefined : world.rules.amounts.get(live[k]);
    if (!asked) continue;
    seen += ROWS_OF_AMOUNT;
    asking.owner = actor[k];
    asking.source = source[k];
    asking.target = actor[k];
    const now = asked.run(world, asking);
    if (now === amount[k]) continue;
    amount[k] = now;
    moved = true;
  }
  world.lookThrough(seen);
  return moved;
}

const NOBODY: ReadonlySet<number> = new Set();

/** The rows of actors on whom a live amount stands. */
export function liveActors(world: World, a: Attributes): ReadonlySet<number> {
  if (world.rules.amounts.size === 0) return NOBODY;
  const { live, actor } = a.of;
  let rows: Set<number> | undefined;
  for (let at = 0; at < a.modifiers.high; at++)
    if (live[at] !== 0 && a.modifiers.live[at] === 1) (rows ??= new Set()).add(world.actors.rowOf(actor[at]));
  rows?.delete(-1);
  return rows ?? NOBODY;
}

/** Builds the lists of modifiers anew, after rows went without being taken out of them. */
export function relinkModifiers(world: World, a: Attributes): void {
  const first = a.heads.cells.first.fill(0);
  const { actor, next } = a.of;
  for (let at = a.modifiers.high - 1; at >= 0; at--) {
    if (a.modifiers.live[at] === 0) continue;
    const row = world.actors.rowOf(actor[at]);
    if (row < 0) continue;
    next[at] = first[row];
    first[row] = at + 1;
  }
}
