import { World } from '../../world/world.js';
import type { Attribute, Threshold } from './compile.js';
import type { Attributes, Cells } from './grip.js';
import { highOf, lowOf, valueOf } from './values.js';

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

/** A number that is the same for all, or one to be found for each. */
type PerActor = number | ((row: number, actor: number) => number);

const NONE: readonly Crossing[] = [];

function crossings(world: World, attribute: Attribute, cells: Cells, threshold: Threshold, k: number): readonly Crossing[] {
  const { actors } = world;
  const { live, high } = actors;
  const value = cells.value.data;
  const inside = cells.inside[k].data;
  const types = actors.column('type').data;
  const { present } = attribute;
  const { low, top, margin } = edgesOf(world, attribute, cells, threshold);
  let found: Crossing[] | undefined;
  for (let row = 0; row < high; row++) {
    if (live[row] === 0 || !present[types[row]]) continue;
    const actor = actors.handle(row);
    const was = inside[row] === 1;
    const slack = was ? of(margin, row, actor) : 0;
    const now = value[row];
    const is = now >= of(low, row, actor) - slack && now <= of(top, row, actor) + slack;
    if (is !== was) (found ??= []).push({ actor, entered: is });
  }
  return found ?? NONE;
}

const of = (number: PerActor, row: number, actor: number) => (typeof number === 'number' ? number : number(row, actor));

function edgesOf(world: World, attribute: Attribute, cells: Cells, { end, from, to, margin }: Threshold) {
  const asked = (amount: Threshold['from'], otherwise: number): PerActor =>
    amount === undefined ? otherwise : (amount.constant ?? ((_, actor) => valueOf(world, amount, actor)));
  const wide: PerActor =
    margin?.constant === undefined && margin !== undefined
      ? (_, actor) => Math.max(0, valueOf(world, margin, actor))
      : (margin?.constant ?? 0);
  const { min, max } = cells;
  const lowest: PerActor = min ? (row) => min.data[row] : lowOf(world, attribute, 0);
  if (end === 'empty') return { low: -Infinity, top: lowest, margin: wide };
  const highest: PerActor = max ? (row) => max.data[row] : highOf(world, attribute, 0, of(lowest, 0, 0));
  if (end === 'full') return { low: highest, top: Infinity, margin: wide };
  return { low: asked(from, -Infinity), top: asked(to, Infinity), margin: wide };
}

function cross(world: World, attribute: Attribute, cells: Cells, threshold: Threshold, k: number, { actor, entered }: Crossing): void {
  const row = world.actors.rowOf(actor);
  if (row < 0) return;
  cells.inside[k].data[row] = entered ? 1 : 0;
  const data = { attribute: attribute.id, threshold: threshold.id, value: cells.value.data[row] };
  world.follow(entered ? 'thresholdEntered' : 'thresholdLeft', { subject: actor, source: actor }, data, () =>
    (entered ? threshold.enter : threshold.leave)(world, World.alone(actor)),
  );
}
