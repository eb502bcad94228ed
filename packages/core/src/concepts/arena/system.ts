import { positionIn } from '../../ruleset/positions.js';
import type { Chapter, Rules } from '../../ruleset/rules.js';
import type { World } from '../../world/world.js';
import { type Arena, PLACEABLE, type Placeable, type Placed, type PlacedAs, type Wall } from './schema.js';
import { arena } from './state.js';

/** Something that the arena places, with its position in the list and the name that it is followed by under edited rules. */
export interface Placement<K extends Placeable> {
  readonly index: number;
  readonly key: string;
  readonly thing: PlacedAs<K>;
}

/** What placed things are read from: rules, or a document that is being compiled. */
export type Source = Pick<Rules, 'document' | 'chapters'>;

/** What kind of thing is placed. */
export const kindOfPlaced = (thing: Placed): Placeable => (Object.keys(PLACEABLE) as Placeable[]).find((kind) => kind in thing)!;

/** The id of the entry that a placed thing is of. */
export const idOfPlaced = (thing: Placed): string => (thing as Partial<Record<Placeable, string>>)[kindOfPlaced(thing)]!;

/** What is known of an arena: the things of each kind, as they are while the kind's chapter is this one. */
interface Known {
  readonly chapter: Chapter | undefined;
  /** Of its own kind. */
  readonly list: readonly Placement<never>[];
}
const known = new WeakMap<Arena, Map<Placeable, Known>>();

/** The things of one kind that the arena places, in its order. */
export function placements<K extends Placeable>({ document, chapters }: Source, kind: K): readonly Placement<K>[] {
  const ground = document['arena'] as Arena;
  const chapter = chapters.get(PLACEABLE[kind]);
  const of = known.get(ground) ?? new Map<Placeable, Known>();
  const before = of.get(kind);
  if (before?.chapter === chapter && before) return before.list as readonly unknown[] as readonly Placement<K>[];
  const list = placedIn(ground, chapter, kind);
  known.set(ground, of.set(kind, { chapter, list: list as readonly Placement<never>[] }));
  return list;
}

function placedIn<K extends Placeable>(ground: Arena, chapter: Chapter | undefined, kind: K): readonly Placement<K>[] {
  const entryOfId = (id: string) => chapter?.entries[positionIn(chapter.ids, id)];
  const numbers = new Map<string, number>();
  return ground.placed.flatMap((thing, index) => {
    const id = (thing as Partial<Record<Placeable, string>>)[kind];
    if (id === undefined) return [];
    // By the first id its entry ever had: it is the same thing after a renaming.
    const first = entryOfId(id)?.formerly?.[0] ?? id;
    const number = (numbers.get(first) ?? 0) + 1;
    if (thing.id === undefined) numbers.set(first, number);
    return [{ index, key: `${first}/${thing.id ?? number}`, thing: thing as PlacedAs<K> }];
  });
}

/** For each position in the list of placed things under the old rules: where that thing stands in it now, -1 where it is gone. */
export function followPlaced(before: Rules, now: Rules, kind: Placeable): ReadonlyMap<number, number> {
  const next = new Map(placements(now, kind).map(({ key, index }) => [key, index]));
  return new Map(placements(before, kind).map(({ key, index }) => [index, next.get(key) ?? -1]));
}

/** Places worth going to: where things stand and where players begin; where there are none, the quarters of the ground. */
export function spotsOf(rules: Rules): readonly { readonly x: number; readonly y: number }[] {
  const { placed, starts, width, height } = arena.of(rules);
  const spots = [...placed, ...starts].map(({ x, y }) => ({ x, y }));
  return spots.length > 0 ? spots : [1, 2, 3].map((quarter) => ({ x: (width * quarter) / 4, y: (height * quarter) / 4 }));
}

/**
 * Whether nothing stands between two points: the line between them crosses no wall. A line along a wall's edge is free.
 */
export function isInSight({ walls }: Pick<Arena, 'walls'>, fromX: number, fromY: number, toX: number, toY: number): boolean {
  return walls.every((wall) => crossing(wall, 0, fromX, fromY, toX, toY) === undefined);
}

/** Whether one place can be seen from another, as far as the tick has steps left to find out. */
export function sees(world: World, from: Readonly<{ x: number; y: number }>, to: Readonly<{ x: number; y: number }>): boolean {
  const ground = arena.of(world.rules);
  return world.lookThrough(ground.walls.length) && isInSight(ground, from.x, from.y, to.x, to.y);
}

/**
 * How far along the way from one point to another a wall is met by something of a radius: a share of the way from 0 to 1,
 * or undefined where it is not. By the slab method: the stretch of the way that lies within each of the two pairs of sides.
 */
export function crossing(wall: Wall, radius: number, fromX: number, fromY: number, toX: number, toY: number): number | undefined {
  let first = 0;
  let last = 1;
  for (const [from, to, low, high] of [
    [fromX, toX, wall.x - radius, wall.x + wall.width + radius],
    [fromY, toY, wall.y - radius, wall.y + wall.height + radius],
  ]) {
    const way = to - from;
    if (way === 0) {
      if (from <= low || from >= high) return undefined;
      continue;
    }
    const one = (low - from) / way;
    const other = (high - from) / way;
    first = Math.max(first, Math.min(one, other));
    last = Math.min(last, Math.max(one, other));
    if (first >= last) return undefined;
  }
  return first;
}
