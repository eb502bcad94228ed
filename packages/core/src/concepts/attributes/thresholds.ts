import type { Amount } from '../../ruleset/context.js';
import type { World } from '../../world/world.js';
import type { Attribute } from './compile.js';
import { noteCrossing } from './crossings.js';
import type { Attributes, Cells, Rows } from './state.js';
import type { Remembered } from './remembered.js';
import { highOf, lowOf, valueOf } from './values.js';

/** Looks at every threshold of every actor once a tick: notes what was crossed by what moved by itself. */
export function lookAtThresholds(world: World, a: Attributes, { edged, rows }: Attributes['here']): void {
  for (const index of edged) {
    const attribute = a.compiled.list[index];
    attribute.thresholds.forEach((_, k) => {
      for (const row of world.turns.sort(crossedRows(world, attribute, a.cells[index], k, rows[index]), (row) => world.actors.handle(row)))
        noteCrossing(world, a, { row, index, k, cause: a.unsettled.get(row) ?? 0 });
    });
  }
}

/** A number that is the same for all, or one for each row. */
type ByRow = number | Float64Array | Int32Array;

const NO_ROWS: number[] = [];

function crossedRows(world: World, attribute: Attribute, cells: Cells, k: number, rows: Rows | undefined): number[] {
  const { high } = world.actors;
  const value = cells.value.data;
  const sides = cells.inside[k].data;
  const { low, top, margin } = edgesOf(world, attribute, cells, k, rows);
  // Most thresholds are at the lower end: they are looked at for every actor in every tick, and hardly ever crossed.
  if (rows === undefined && low === -Infinity && typeof margin === 'number')
    return typeof top === 'number' ? belowOne(value, sides, high, top, margin) : belowEach(value, sides, high, top, margin);
  let found: number[] | undefined;
  const count = rows === undefined ? high : rows.length;
  for (let i = 0; i < count; i++) {
    const row = rows === undefined ? i : rows[i];
    const was = sides[row];
    const slack = was === 0 ? 0 : typeof margin === 'number' ? margin : margin[row];
    const now = value[row];
    const least = typeof low === 'number' ? low : low[row];
    const most = typeof top === 'number' ? top : top[row];
    const is = now >= least - slack && now <= most + slack ? 1 : 0;
    if (is !== was) (found ??= []).push(row);
  }
  return found ?? NO_ROWS;
}

/** The rows that crossed an edge which is the same for all. */
function belowOne(value: Cells['value']['data'], inside: Cells['value']['data'], high: number, top: number, margin: number): number[] {
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
): number[] {
  let rows: number[] | undefined;
  for (let row = 0; row < high; row++) {
    const was = inside[row];
    if (value[row] <= (was === 0 ? top[row] : top[row] + margin) !== (was === 1)) (rows ??= []).push(row);
  }
  return rows ?? NO_ROWS;
}

/** A number for each of these rows, worked out now. */
function eachOf({ actors: { high } }: World, rows: Rows | undefined, work: (row: number) => number): Float64Array {
  if (rows === undefined) return Float64Array.from({ length: high }, (_, row) => work(row));
  const numbers = new Float64Array(high);
  for (const row of rows) numbers[row] = work(row);
  return numbers;
}

/** The edges of a threshold. Those that a formula computes are remembered where nothing moves them unseen. */
function edgesOf(world: World, attribute: Attribute, cells: Cells, k: number, rows: Rows | undefined) {
  const { end, from, to, steady, margin: slack } = attribute.thresholds[k];
  const asked = (amount: Amount | undefined, otherwise: number, memory: Remembered, least = -Infinity): ByRow => {
    if (amount === undefined) return otherwise;
    if (amount.constant !== undefined) return Math.max(least, amount.constant);
    const work = (row: number) => Math.max(least, valueOf(world, amount, world.actors.handle(row)));
    return steady ? memory.of(world, rows, work) : eachOf(world, rows, work);
  };
  const memory = cells.edges[k];
  const margin = asked(slack, 0, memory.margin, 0);
  const { min, max } = cells;
  const lowest: ByRow = min ? min.data : lowOf(world, attribute, 0);
  if (end === 'empty') return { low: -Infinity, top: lowest, margin };
  const highest: ByRow = max ? max.data : highOf(world, attribute, 0, typeof lowest === 'number' ? lowest : -Infinity);
  if (end === 'full') return { low: highest, top: Infinity, margin };
  return { low: asked(from, -Infinity, memory.low), top: asked(to, Infinity, memory.top), margin };
}
