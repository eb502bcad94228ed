import type { Parties } from '../../formula/index.js';
import { clamp, LARGEST_AMOUNT, toGrid, toWhole } from '../../math/grid.js';
import type { Amount } from '../../ruleset/context.js';
import type { World } from '../../world/world.js';
import type { Attribute, Start } from './compile.js';
import type { Attributes, Cells } from './state.js';
import { attributes } from './state.js';
import { combine, refreshLive, sumModifiers } from './modifiers.js';

/** An actor's lower bound of an attribute. What is counted in whole numbers has whole bounds, also where its author's are broken. */
export function lowOf(world: World, { min, whole }: Attribute, actor: number): number {
  const low = valueOf(world, min, actor);
  return whole ? Math.ceil(low) : low;
}

/** An actor's upper bound; never below the lower one. */
export function highOf(world: World, { max, whole }: Attribute, actor: number, low: number): number {
  if (!max) return LARGEST_AMOUNT;
  const high = valueOf(world, max, actor);
  const end = whole ? Math.floor(high) : high;
  return end < low ? low : end;
}

export function valueOf(world: World, amount: Amount, actor: number): number {
  return amount.constant ?? amount.run(world, ownerOnly(actor));
}

/** Parties with one and the same actor as owner; reused, since formulas are called thousands of times a tick. */
const scratch = { owner: 0, source: 0, target: 0 };
export function ownerOnly(actor: number): Parties {
  scratch.owner = actor;
  return scratch;
}

export function has(world: World, attribute: Attribute, row: number): boolean {
  return attribute.present[world.actors.cells.type[row]] === true;
}

/** The attributes that an actor has, in the order in which they follow from each other. */
const ownOf = (world: World, { compiled }: Attributes, row: number): readonly number[] => compiled.ofType[world.actors.cells.type[row]];

/** Live amounts follow from values and values from them: without a circle, as many rounds as the longest chain settle all. */
const MOST_ROUNDS = 8;
/** What it costs to work out a value with its bounds, in rows that are looked through. */
const ROWS_OF_VALUE = 8;

/**
 * Recomputes an actor's stats and maxima, in the order in which they follow from each other. Bounds clip its pools at the
 * end of the tick, when all that comes and goes in it has.
 * @param still pools do not follow their maxima and are clipped at once: it is the rules that moved, or a saved value that came back
 */
export function settle(world: World, a: Attributes, row: number, still = false): void {
  if (!still) moved(world, a, row);
  refreshLive(world, a, row);
  world.touch(row);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    let settled = 0;
    for (const index of ownOf(world, a, row)) if (settleOne(world, a, row, index, still)) settled++;
    // Values are whole whatever the tick has left: what it costs is missing for what comes after.
    world.lookThrough(settled * ROWS_OF_VALUE);
    if (!refreshLive(world, a, row)) return;
  }
}

/** Notes that bounds are to clip an actor's values at the end of the tick, and for what: what is being answered, if anything is. */
export function moved(world: World, { unsettled }: Attributes, row: number): void {
  unsettled.set(row, world.cause || (unsettled.get(row) ?? 0));
}

/** Has bounds clip an actor's pools and counters. Live amounts may follow from that, and bounds from those. */
export function clip(world: World, a: Attributes, row: number): void {
  const actor = world.actors.handle(row);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    let clipped = false;
    const own = ownOf(world, a, row);
    for (const index of own) {
      const attribute = a.compiled.list[index];
      if (attribute.kind === 'stat') continue;
      const low = lowOf(world, attribute, actor);
      const high = highOf(world, attribute, actor, low);
      const value = a.cells[index].value.data;
      if (value[row] >= low && value[row] <= high) continue;
      value[row] = clamp(value[row], low, high);
      clipped = true;
    }
    world.lookThrough(own.length * ROWS_OF_VALUE);
    if (!clipped) return;
    settle(world, a, row);
    a.unsettled.delete(row);
  }
}

/** Settles only what reads things that change by themselves. */
export function settleRestless(world: World, a: Attributes, row: number): void {
  for (const index of ownOf(world, a, row)) if (a.compiled.list[index].restless) settleOne(world, a, row, index, false);
}

/** Settles one of them. Returns whether the actor has it. */
function settleOne(world: World, a: Attributes, row: number, index: number, still: boolean): boolean {
  const attribute = a.compiled.list[index];
  if (!has(world, attribute, row)) return false;
  const actor = world.actors.handle(row);
  const cells = a.cells[index];
  const low = lowOf(world, attribute, actor);
  const high = highOf(world, attribute, actor, low);
  const value = cells.value.data;
  if (cells.min) cells.min.data[row] = low;
  if (cells.max) {
    const before = cells.max.data[row];
    cells.max.data[row] = high;
    if (attribute.follow !== 'keep' && before !== high && !still) followMaximum(attribute, cells, row, before, high);
  }
  if (attribute.kind === 'stat') {
    const base = cells.own.data[row];
    const whole = a.heads.cells.first[row] === 0 ? base : combine(base, sumModifiers(world, a, row, index));
    value[row] = toGrid(clamp(attribute.whole ? toWhole(whole) : whole, low, high));
  } else if (value[row] < low || value[row] > high) {
    if (still) value[row] = clamp(value[row], low, high);
    else moved(world, a, row);
  }
  return true;
}

/**
 * A pool whose maximum has moved. The share is remembered with the value that it was taken from, so that a maximum that
 * comes and goes leaves exactly what was there: nothing is multiplied and divided back.
 */
function followMaximum(attribute: Attribute, cells: Cells, row: number, before: number, high: number): void {
  const value = cells.value.data;
  const round = (x: number) => toGrid(attribute.whole ? toWhole(x) : x);
  // Bounds clip it at the end of the tick: maxima that come and go in one leave what was there.
  if (attribute.follow === 'along') return void (value[row] = round(value[row] + high - before));
  const share = cells.share!.data;
  const shared = cells.shared!.data;
  // A maximum that had fallen to nothing leaves the share that there was before it did.
  if (shared[row] !== value[row] || share[row] === 0) share[row] = before === 0 ? 0 : value[row] / before;
  value[row] = round(share[row] * high);
  shared[row] = value[row];
}

/** Gives a newly spawned actor its first values. */
export function startValues(world: World, a: Attributes, row: number, only?: ReadonlySet<number>): void {
  const { list, ofType } = a.compiled;
  const type = world.actors.cells.type[row];
  for (const index of ofType[type]) {
    const attribute = list[index];
    if (only && !only.has(index)) continue;
    const value = beginning(world, attribute, attribute.starts[type], row);
    a.cells[index].own.data[row] = attribute.whole ? Math.floor(value + 1e-9) : value;
    // A later start may read this one's value, never an earlier: its bounds have to stand before that is asked.
    settleOne(world, a, row, index, true);
  }
  settle(world, a, row, true);
}

/** Gives an actor another first value than its kind has. */
export function beginWith(world: World, row: number, index: number, start: Start): void {
  const a = attributes.in(world);
  const attribute = a.compiled.list[index];
  if (!has(world, attribute, row)) return;
  const value = beginning(world, attribute, start, row);
  a.cells[index].own.data[row] = attribute.whole ? Math.floor(value + 1e-9) : value;
  settle(world, a, row, true);
}

export function beginning(world: World, attribute: Attribute, start: Start, row: number): number {
  const actor = world.actors.handle(row);
  if (start.amount) return start.amount.run(world, { owner: actor, source: 0, target: 0 });
  return toGrid(highOf(world, attribute, actor, lowOf(world, attribute, actor)) * (start.share ?? 1));
}

/** What a change to a pool or counter came to. Over and under are lost, never stored. */
export interface Change {
  readonly from: number;
  readonly to: number;
  readonly asked: number;
  readonly given: number;
  readonly lost: number;
}

/** Where a step leads between bounds. What is beyond one before it is clipped at the end of the tick, and is not moved by that here. */
function towards(from: number, step: number, low: number, high: number): number {
  const to = from + step;
  return step > 0 ? Math.max(from, Math.min(to, high)) : Math.min(from, Math.max(to, low));
}

/** Changes a pool or counter, or a stat's base, by an amount, within its bounds. Rows without the attribute stay as they are. */
export function changeBy(world: World, a: Attributes, row: number, index: number, asked: number): Change {
  const attribute = a.compiled.list[index];
  const actor = world.actors.handle(row);
  const cells = a.cells[index];
  const column = cells.own;
  const from = column.data[row];
  if (!has(world, attribute, row)) return { from, to: from, asked, given: 0, lost: asked };
  const wanted = attribute.whole ? toWhole(asked) : asked;
  const low = lowOf(world, attribute, actor);
  const high = highOf(world, attribute, actor, low);
  const to = attribute.kind === 'stat' ? toGrid(from + wanted) : toGrid(towards(from, wanted, low, high));
  column.data[row] = to;
  if (to < from && cells.rests) cells.rests.data[row] = world.tick + attribute.refill!.pause;
  if (a.alone[index]) world.touch(row);
  else settle(world, a, row);
  const given = toGrid(to - from);
  return { from, to, asked: wanted, given, lost: toGrid(wanted - given) };
}

/** Gives an actor's pools what they begin with, but for some. Stats keep their base, counters what was counted. */
export function restart(world: World, row: number, besides?: ReadonlySet<number>): void {
  const a = attributes.in(world);
  const pools = new Set(a.compiled.list.flatMap((attribute, i) => (attribute.kind === 'pool' && !besides?.has(i) ? [i] : [])));
  startValues(world, a, row, pools);
}
