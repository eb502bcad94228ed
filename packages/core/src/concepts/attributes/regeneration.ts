import { LARGEST_AMOUNT } from '../../math/grid.js';
import { states } from '../states/index.js';
import type { World } from '../../world/world.js';
import type { Attribute, Refill } from './compile.js';
import type { Attributes, Cells, Rows } from './state.js';
import { liveActors, refreshLive } from './modifiers.js';
import { lookAtThresholds } from './thresholds.js';
import { highOf, lowOf, ownerOnly, settle, settleRestless } from './values.js';

/** One tick of refilling for every actor, attribute by attribute: columns are walked, not actors. */
export function regenerate(world: World, a: Attributes): void {
  const resting = restingRows(world, a);
  const { refilled, restless, rows } = inArena(world, a);
  for (const index of refilled) {
    const attribute = a.compiled.list[index];
    const refill = attribute.refill!;
    if (world.tick % refill.every !== 0) continue;
    if (isPlain(attribute)) regeneratePlain(world, attribute, a.cells[index], { rows: rows[index], resting });
    else regenerateEach(world, attribute, a.cells[index], { rows: rows[index], resting });
  }
  for (const row of restless) settleRestless(world, a, row);
  // A live amount may follow what moves by itself; where none has moved, nothing else has.
  for (const row of liveActors(world, a)) if (refreshLive(world, a, row)) settle(world, a, row);
  lookAtThresholds(world, a, inArena(world, a));
}

/** What there is to look at: of thousands of attributes those who are here have a few. */
function inArena(world: World, a: Attributes): Attributes['here'] {
  const { here, looked, compiled } = a;
  const { actors } = world;
  if (here.version === actors.version) return here;
  const types = new Set<number>();
  const kinds = actors.cells.type;
  for (let row = 0; row < actors.high; row++) if (actors.live[row] === 1) types.add(kinds[row]);
  const all = new Set<number>();
  for (const type of types) for (const index of looked[type]) all.add(index);
  const own = [...all].sort((one, other) => one - other);
  here.version = actors.version;
  here.refilled = own.filter((index) => compiled.list[index].refill);
  here.edged = own.filter((index) => compiled.list[index].thresholds.length > 0);
  here.restless = actors.rows().filter((row) => a.restless[kinds[row]]);
  here.rows = rowsOf(world, a);
  return here;
}

/** Who has which: by attribute that there is something to look at, the rows of those who have it. */
function rowsOf({ actors }: World, { looked, common }: Attributes): Attributes['here']['rows'] {
  const { dense } = actors;
  const kinds = actors.cells.type;
  const found: (number[] | undefined)[] = [];
  for (const row of actors.rows()) for (const index of looked[kinds[row]]) if (!dense || !common[index]) (found[index] ??= []).push(row);
  return found;
}

/** Whose pools rest: who is down, or about to fall. By row; undefined where nobody is. */
function restingRows(world: World, { rests }: Attributes): readonly boolean[] | undefined {
  const { high } = world.actors;
  const { down, table } = states.in(world);
  const { state } = table.cells;
  const { rests: resting } = rests.cells;
  let found: boolean[] | undefined;
  for (let row = 0; row < high; row++) if (state[row] === down || resting[row] === 1) (found ??= [])[row] = true;
  return found;
}

/** Whether its refill needs nothing but its own column: a rate that is known beforehand between bounds that are. */
function isPlain({ refill, whole, min }: Attribute): boolean {
  return refill!.steady && refill!.pause === 0 && !whole && min.constant !== undefined;
}

/** Who has an attribute, as {@link Attributes.here} knows them, and whose pools rest. */
interface Whose {
  readonly rows: Rows | undefined;
  readonly resting: readonly boolean[] | undefined;
}

function rateOf(world: World, refill: Refill, row: number): number {
  const own = ownerOnly(world.actors.handle(row));
  if (refill.while && refill.while(world, own) === 0) return 0;
  return refill.rate.constant ?? refill.rate.run(world, own);
}

/** Rates that are the same for all, or remembered for each. */
function ratesOf(world: World, { rates }: Cells, refill: Refill, rows: Rows | undefined): number | Float64Array {
  if (refill.rate.constant !== undefined && !refill.while) return refill.rate.constant;
  return rates.of(world, rows, (row) => rateOf(world, refill, row));
}

function regeneratePlain(world: World, attribute: Attribute, own: Cells, { rows, resting }: Whose): void {
  const refill = attribute.refill!;
  const { high } = world.actors;
  const cells = own.value.data;
  const low = attribute.min.constant!;
  const fixed = attribute.max === undefined ? LARGEST_AMOUNT : attribute.max.constant;
  const ends = fixed === undefined ? own.max!.data : undefined;
  const everywhere = !resting && rows === undefined;
  const rates = ratesOf(world, own, refill, rows);
  const { seconds } = refill;
  if (everywhere && typeof rates === 'number' && rates > 0) return refillAll(cells, high, rates * seconds, fixed, ends);
  if (everywhere && typeof rates !== 'number' && ends === undefined) return refillByRow(cells, high, rates, seconds, low, fixed!);
  const count = rows === undefined ? high : rows.length;
  for (let i = 0; i < count; i++) {
    const row = rows === undefined ? i : rows[i];
    const step = (typeof rates === 'number' ? rates : rates[row]) * seconds;
    const end = ends ? ends[row] : fixed!;
    const now = cells[row];
    // Most pools are full most of the time; a full one that refills, or an empty one that drains, is left alone.
    if (step > 0 ? now >= end : now <= low || step === 0) continue;
    if (resting?.[row]) continue;
    const next = Math.floor((now + step) * 1e6 + 0.5) / 1e6;
    cells[row] = step > 0 ? (next > end ? end : next) : next < low ? low : next;
  }
}

/** The commonest of all: everybody has it, and it refills at one rate. */
function refillAll(
  cells: Float64Array | Int32Array,
  high: number,
  step: number,
  fixed: number | undefined,
  ends: Float64Array | Int32Array | undefined,
): void {
  for (let row = 0; row < high; row++) {
    const end = ends === undefined ? fixed! : ends[row];
    const now = cells[row];
    if (now >= end) continue;
    const next = Math.floor((now + step) * 1e6 + 0.5) / 1e6;
    cells[row] = next > end ? end : next;
  }
}

/** Everybody has it, and each refills or drains at a rate of its own, between ends that are the same for all. */
function refillByRow(cells: Float64Array | Int32Array, high: number, rates: Float64Array, seconds: number, low: number, end: number): void {
  for (let row = 0; row < high; row++) {
    const rate = rates[row];
    const now = cells[row];
    if (rate > 0 ? now >= end : now <= low || rate === 0) continue;
    const next = Math.floor((now + rate * seconds) * 1e6 + 0.5) / 1e6;
    cells[row] = rate > 0 ? (next > end ? end : next) : next < low ? low : next;
  }
}

function regenerateEach(world: World, attribute: Attribute, own: Cells, { rows, resting }: Whose): void {
  const refill = attribute.refill!;
  const { value, rests, part, min, max } = own;
  const cells = value.data;
  const parts = part?.data;
  const known = refill.steady ? ratesOf(world, own, refill, rows) : undefined;
  const lowest = min ? undefined : lowOf(world, attribute, 0);
  const highest = max ? undefined : highOf(world, attribute, 0, lowest ?? -LARGEST_AMOUNT);
  const count = rows === undefined ? world.actors.high : rows.length;
  for (let i = 0; i < count; i++) {
    const row = rows === undefined ? i : rows[i];
    if (resting?.[row]) continue;
    const rate = known === undefined ? rateOf(world, refill, row) : typeof known === 'number' ? known : known[row];
    if (rate === 0 || (rate > 0 && rests && rests.data[row] > world.tick)) continue;
    // Bounds that move are remembered each time they do: they need not be asked again.
    const low = lowest ?? min!.data[row];
    const high = highest ?? max!.data[row];
    const now = cells[row];
    if (rate > 0 ? now >= high : now <= low) {
      // At an end nothing is saved up: a pool that was full for a minute does not jump when it is next hurt.
      if (parts) parts[row] = 0;
      continue;
    }
    let step = rate * refill.seconds;
    if (parts) step = wholePart(parts, row, step);
    const stepped = Math.floor((now + step) * 1e6 + 0.5) / 1e6;
    const next = rate > 0 ? Math.min(stepped, high) : Math.max(stepped, low);
    if (parts && (rate > 0 ? next === high : next === low)) parts[row] = 0;
    cells[row] = next;
  }
}

/** Adds a step to what is saved up of a whole pool and takes the whole units out of it. */
function wholePart(parts: Float64Array | Int32Array, row: number, step: number): number {
  const saved = Math.floor((parts[row] + step) * 1e6 + 0.5) / 1e6;
  const whole = saved < 0 ? Math.ceil(saved) : Math.floor(saved);
  parts[row] = Math.floor((saved - whole) * 1e6 + 0.5) / 1e6;
  return whole;
}
