import { clamp, LARGEST_AMOUNT } from '../../math/grid.js';
import type { World } from '../../world/world.js';
import type { Attribute } from './compile.js';
import type { Attributes } from './grip.js';
import { liveActors } from './modifiers.js';
import { lowOf, highOf, ownerOnly, settle, settleRestless } from './values.js';

/** One tick of refilling for every actor, attribute by attribute: columns are walked, not actors. */
export function regenerate(world: World, a: Attributes): void {
  a.compiled.list.forEach((attribute, index) => {
    if (!attribute.refill || world.tick % attribute.refill.every !== 0) return;
    if (isPlain(attribute)) regeneratePlain(world, a, attribute, index, attribute.refill.rate.constant! * attribute.refill.seconds);
    else regenerateEach(world, a, attribute, index);
  });
  if (a.compiled.list.some((attribute) => attribute.restless))
    for (let row = 0; row < world.actors.high; row++) if (world.actors.live[row] === 1) settleRestless(world, a, row);
  for (const row of liveActors(world, a)) settle(world, a, row);
}

/** Whether its refill needs nothing but its own column: a fixed rate between fixed or already computed bounds. */
function isPlain({ refill, whole, min }: Attribute): boolean {
  return refill!.rate.constant !== undefined && refill!.pause === 0 && !refill!.while && !whole && min.constant !== undefined;
}

function regeneratePlain(world: World, a: Attributes, attribute: Attribute, index: number, step: number): void {
  const { live, high } = world.actors;
  const cells = a.cells[index].value.data;
  const low = attribute.min.constant!;
  const fixed = attribute.max === undefined ? LARGEST_AMOUNT : attribute.max.constant;
  const ends = fixed === undefined ? a.cells[index].max!.data : undefined;
  const types = world.actors.column('type').data;
  const { present } = attribute;
  for (let row = 0; row < high; row++) {
    const end = ends ? ends[row] : fixed!;
    const now = cells[row];
    // Most pools are full most of the time; a full one that refills, or an empty one that drains, is left alone.
    if (step > 0 ? now >= end : now <= low) continue;
    if (live[row] === 0 || !present[types[row]]) continue;
    const next = Math.floor((now + step) * 1e6 + 0.5) / 1e6;
    cells[row] = next > end ? end : next < low ? low : next;
  }
}

function regenerateEach(world: World, a: Attributes, attribute: Attribute, index: number): void {
  const refill = attribute.refill!;
  const { actors } = world;
  const { value, rests, part, min, max } = a.cells[index];
  const cells = value.data;
  const parts = part?.data;
  const types = actors.column('type').data;
  const { present } = attribute;
  const fixed = refill.rate.constant;
  for (let row = 0; row < actors.high; row++) {
    if (actors.live[row] === 0 || !present[types[row]]) continue;
    const actor = actors.handle(row);
    const rate = fixed ?? refill.rate.run(world, ownerOnly(actor));
    if (rate === 0 || (rate > 0 && rests && rests.data[row] > world.tick)) continue;
    // Bounds that move are remembered each time they do: they need not be asked again.
    const low = min ? min.data[row] : lowOf(world, attribute, actor);
    const high = max ? max.data[row] : highOf(world, attribute, actor, low);
    const now = cells[row];
    if (rate > 0 ? now >= high : now <= low) {
      // At an end nothing is saved up: a pool that was full for a minute does not jump when it is next hurt.
      if (parts) parts[row] = 0;
      continue;
    }
    if (refill.while && refill.while(world, ownerOnly(actor)) === 0) continue;
    let step = rate * refill.seconds;
    if (parts) step = wholePart(parts, row, step);
    const next = clamp(Math.floor((now + step) * 1e6 + 0.5) / 1e6, low, high);
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
