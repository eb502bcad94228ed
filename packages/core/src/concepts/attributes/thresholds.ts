import type { Amount } from '../../ruleset/context.js';
import type { World } from '../../world/world.js';
import type { Attribute, Threshold } from './compile.js';
import { noteCrossing } from './crossings.js';
import type { Attributes, Cells } from './state.js';
import type { Remembered } from './remembered.js';
import { highOf, lowOf, valueOf } from './values.js';

/** Looks at every threshold of every actor once a tick: notes what was crossed by what moved by itself. */
export function lookAtThresholds(world: World, a: Attributes, edged: readonly number[]): void {
  for (const index of edged) {
    const attribute = a.compiled.list[index];
    attribute.thresholds.forEach((threshold, k) => {
      for (const row of world.turns.sort(crossedRows(world, attribute, a.cells[index], threshold, k), (row) => world.actors.handle(row)))
        noteCrossing(world, a, { row, index, k, cause: a.unsettled.get(row) ?? 0 });
    });
  }
}

/** A number that is the same for all, or one for each row. */
type ByRow = number | Float64Array | Int32Array;

const NO_ROWS: number[] = [];

function crossedRows(world: World, attribute: Attribute, cells: Cells, threshold: Threshold, k: number): number[] {
  const { actors } = world;
  const { live, high } = actors;
  const value = cells.value.data;
  const sides = cells.inside[k].data;
  const types = actors.cells.type;
  const { present } = attribute;
  const everywhere = actors.dense && present.every(Boolean);
  const { low, top, margin } = edgesOf(world, attribute, cells, threshold, k);
  let found: number[] | undefined;
  const check = (row: number) => {
    if (everywhere || (live[row] === 1 && present[types[row]])) (found ??= []).push(row);
  };
  if (low === -Infinity && typeof margin === 'number') {
    // Most thresholds are at the lower end: they are looked at for every actor in every tick, and hardly ever crossed.
    const crossed = typeof top === 'number' ? belowOne(value, sides, high, top, margin) : belowEach(value, sides, high, top, margin);
    for (const row of crossed) check(row);
    return found ?? NO_ROWS;
  }
  for (let row = 0; row < high; row++) {
    const was = sides[row];
    const slack = was === 0 ? 0 : typeof margin === 'number' ? margin : margin[row];
    const now = value[row];
    const least = typeof low === 'number' ? low : low[row];
    const most = typeof top === 'number' ? top : top[row];
    const is = now >= least - slack && now <= most + slack ? 1 : 0;
    if (is !== was) check(row);
  }
  return found ?? NO_ROWS;
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
