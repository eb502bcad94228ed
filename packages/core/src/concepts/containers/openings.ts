import type { World } from '../../world/world.js';
import { lives } from '../lives/index.js';
import { type Container } from './compile.js';
import { containers } from './state.js';

/** The container that a thing is: its entry's, or what this one says otherwise; undefined where it is none. */
export function containerAt(world: World, row: number): Container | undefined {
  const { list, variants, ofType } = containers.in(world);
  const index = ofType[world.actors.cells.type[row]] ?? -1;
  if (index < 0) return undefined;
  return variants.get(lives.in(world).table.cells.listed[row] - 1) ?? list[index];
}

/** The row of what says that somebody has something open, or is opening it; -1 where nobody has. */
export function openingBy(world: World, visitor: number): number {
  return containers.in(world).openings.firstOf(visitor);
}

/** The thing that somebody has open, or is opening; 0 for none. */
export function openedBy(world: World, visitor: number): number {
  const at = openingBy(world, visitor);
  return at < 0 ? 0 : containers.in(world).openings.cells.thing[at];
}

/** The rows of what says that somebody has a thing open, or is opening it. */
export function openingsOf(world: World, thing: number): readonly number[] {
  const { openings } = containers.in(world);
  return openings.rows().filter((at) => openings.cells.thing[at] === thing);
}

/** Those who have a thing open, or are opening it. */
export function visitorsOf(world: World, thing: number): readonly number[] {
  const visitor = containers.in(world).openings.cells.visitor;
  return openingsOf(world, thing).map((at) => visitor[at]);
}
