import type { Amount } from '../../ruleset/context.js';
import { World } from '../../world/world.js';
import type { Attribute, Threshold } from './compile.js';
import type { Attributes, Cells } from './grip.js';
import type { Remembered } from './remembered.js';
import { highOf, lowOf, valueOf } from './values.js';
import { events } from './events.js';

/** Looks at every threshold of every actor once a tick: what crossed its edge enters or leaves, once. */
export function crossThresholds(world: World, a: Attributes): void {
  a.compiled.list.forEach((attribute, index) =>
    attribute.thresholds.forEach((threshold, k) => {
      const crossed = crossings(world, attribute, a.cells[index], threshold, k);
      // What follows may change values and even take actors away: it waits until all rows have been looked at.
      for (const crossing of crossed) cross(world, attribute, a.cells[index], threshold, k, crossing);
    }),
  );
}

interface Crossing {
  readonly actor: number;
  readonly entered: boolean;
}

/** A number that is the same for all, or one for each row. */
type ByRow = number | Float64Array | Int32Array;

const NONE: readonly Crossing[] = [];
const NO_ROWS: readonly number[] = [];

function crossings(world: World, attribute: Attribute, cells: Cells, threshold: Threshold, k: number): readonly Crossing[] {
  const { actors } = world;
  const { live, high } = actors;
  const value = cells.value.data;
  const inside = cells.inside[k].data;
  const types = actors.column('type').data;
  const { present } = attribute;
  const everywhere = actors.dense && present.every(Boolean);
  const { low, top, margin } = edgesOf(world, attribute, cells, threshold, k);
  let found: Crossing[] | undefined;
  const check = (row: number, is: number) => {
    if (everywhere || (live[row] === 1 && present[types[row]])) (found ??= []).push({ actor: actors.handle(row), entered: is === 1 });
  };
  if (low === -Infinity && typeof margin === 'number') {
    // Most thresholds are at the lower end: they are looked at for every actor in every tick, and hardly ever crossed.
    const crossed = typeof top === 'number' ? belowOne(value, inside, high, top, margin) : belowEach(value, inside, high, top, margin);
    for (const row of crossed) check(row, 1 - inside[row]);
    return found ?? NONE;
  }
  for (let row = 0; row < high; row++) {
    const was = inside[row];
    const slack = was === 0 ? 0 : typeof margin === 'number' ? margin : margin[row];
    const now = value[row];
    const least = typeof low === 'number' ? low : low[row];
    const most = typeof top === 'number' ? top : top[row];
    const is = now >= least - slack && now <= most + slack ? 1 : 0;
    if (is !== was) check(row, is);
  }
  return found ?? NONE;
}

/** The rows that crossed an edge which is the same for all. */
function belowOne(
  value: Cells['value']['data'],
  inside: Cells['value']['data'],
  high: number,
  top: number,
  margin: number,
): readonly number[] {
  const left = top + margin;
  let rows: number[] | undefined;
  for (let row = 0; row < high; row++) {
    const was = inside[row];
    if (value[row] <= (was === 0 ? top : left) !== (was === 1)) (rows ??= []).push(row);
  }
  return rows ?? NO_ROWS;
}

/** The rows that crossed an edge of their own. */
function belowEach(
  value: Cells['value']['data'],
  inside: Cells['value']['data'],
  high: number,
  top: Float64Array | Int32Array,
  margin: number,
): readonly number[] {
  let rows: number[] | undefined;
  for (let row = 0; row < high; row++) {
    const was = inside[row];
    if (value[row] <= (was === 0 ? top[row] : top[row] + margin) !== (was === 1)) (rows ??= []).push(row);
  }
  return rows ?? NO_ROWS;
}

/** The edges of a threshold. Those that a formula computes are remembered where nothing moves them unseen. */
function edgesOf(world: World, attribute: Attribute, cells: Cells, threshold: Threshold, k: number) {
  const { end, from, to, steady } = threshold;
  const { high } = world.actors;
  const asked = (amount: Amount | undefined, otherwise: number, memory: Remembered, least = -Infinity): ByRow => {
    if (amount === undefined) return otherwise;
    if (amount.constant !== undefined) return Math.max(least, amount.constant);
    const work = (row: number) => Math.max(least, valueOf(world, amount, world.actors.handle(row)));
    return steady ? memory.upTo(world, high, work) : Float64Array.from({ length: high }, (_, row) => work(row));
  };
  const memory = cells.edges[k];
  const margin = asked(threshold.margin, 0, memory.margin, 0);
  const { min, max } = cells;
  const lowest: ByRow = min ? min.data : lowOf(world, attribute, 0);
  if (end === 'empty') return { low: -Infinity, top: lowest, margin };
  const highest: ByRow = max ? max.data : highOf(world, attribute, 0, typeof lowest === 'number' ? lowest : -Infinity);
  if (end === 'full') return { low: highest, top: Infinity, margin };
  return { low: asked(from, -Infinity, memory.low), top: asked(to, Infinity, memory.top), margin };
}

function cross(world: World, attribute: Attribute, cells: Cells, threshold: Threshold, k: number, { actor, entered }: Crossing): void {
  const row = world.actors.rowOf(actor);
  if (row < 0) return;
  cells.inside[k].data[row] = entered ? 1 : 0;
  const data = { attribute: attribute.id, threshold: threshold.id, value: cells.value.data[row] };
  world.follow(entered ? events.thresholdEntered : events.thresholdLeft, { subject: actor, source: actor }, data, () =>
    (entered ? threshold.enter : threshold.leave)(world, World.alone(actor)),
  );
}
