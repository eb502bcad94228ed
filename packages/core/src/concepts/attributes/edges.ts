import type { Amount } from '../../ruleset/context.js';
import type { World } from '../../world/world.js';
import type { Attribute, Threshold } from './compile.js';
import type { Cells } from './state.js';
import { highOf, lowOf, valueOf } from './values.js';

interface Edges {
  readonly low: number;
  readonly top: number;
  readonly margin: number;
}

/** Whether a value is within a range, or not yet out of it by the margin. */
export function inside(value: number, { low, top, margin }: Edges, was: number): boolean {
  const slack = was === 0 ? 0 : margin;
  return value >= low - slack && value <= top + slack;
}

/** The edges of a threshold for one actor. */
export function edgesAt(world: World, attribute: Attribute, { min, max }: Cells, threshold: Threshold, row: number): Edges {
  const actor = world.actors.handle(row);
  const asked = (amount: Amount | undefined, otherwise: number) => (amount ? valueOf(world, amount, actor) : otherwise);
  const margin = Math.max(0, asked(threshold.margin, 0));
  const lowest = min ? min.data[row] : lowOf(world, attribute, actor);
  if (threshold.end === 'empty') return { low: -Infinity, top: lowest, margin };
  if (threshold.end === 'full') return { low: max ? max.data[row] : highOf(world, attribute, actor, lowest), top: Infinity, margin };
  return { low: asked(threshold.from, -Infinity), top: asked(threshold.to, Infinity), margin };
}
