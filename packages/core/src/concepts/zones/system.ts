import type { CompiledThen } from '../../ruleset/context.js';
import { type Rules } from '../../ruleset/rules.js';
import { type EventSpec } from '../../world/events.js';
import { World } from '../../world/world.js';
import { followPlaced, type PlacedAs } from '../arena/index.js';
import { actorsWithin, headingCause, placeOf, Spots } from '../movement/index.js';
import { zoneChapter } from './schema.js';
import { type PlacedZone, zones } from './state.js';
import { events, type fields } from './events.js';

export const colourOf = (rules: Rules, id: string) => {
  const { colour } = zoneChapter.find(rules, id)!;
  return colour === undefined ? {} : { colour };
};

/** Whether a point lies in a zone; its edge belongs to it. */
export function isInZone({ x: mx, y: my, radius, width = 0, height = 0 }: PlacedAs<'zone'>, x: number, y: number): boolean {
  const dx = x - mx;
  const dy = y - my;
  if (radius !== undefined) return dx * dx + dy * dy <= radius * radius;
  return Math.abs(dx) * 2 <= width && Math.abs(dy) * 2 <= height;
}

/** What it costs to know of somebody in a zone whether they were before, in rows that are looked through. */
const ROWS_INSIDE = 56;

/** Those in a zone for whom it is one, ascending by row; undefined where the tick has no steps left to find out. */
function insiders(world: World, { thing, who }: PlacedZone): readonly number[] | undefined {
  const near = actorsWithin(world, thing.x, thing.y, reachOf(thing));
  if (!world.lookThrough(near.length * ROWS_INSIDE)) return undefined;
  return near.filter((row) => {
    const at = placeOf(world, row);
    return isInZone(thing, at.x, at.y) && (!who || who(world, World.alone(world.actors.handle(row))) !== 0);
  });
}

/** How far a zone reaches from its middle. */
const reachOf = ({ radius, width = 0, height = 0 }: PlacedAs<'zone'>): number => radius ?? Math.sqrt(width * width + height * height) / 2;

/** Where zones lie, by their position in the list. */
export function spotsOf(world: World, list: readonly PlacedZone[]): Spots {
  const spots = new Spots();
  spots.lay(
    world,
    list.map(({ thing }) => ({ x: thing.x, y: thing.y, radius: reachOf(thing) })),
  );
  return spots;
}

/** Handles are below this. */
const HANDLES = 2147483648;

const NOBODY: readonly number[] = [];

/** One number for a zone and somebody in it. */
const pairOf = (placed: number, actor: number) => placed * HANDLES + actor;

/** First who has left, then who has entered, zone by zone; then what it does to those inside whose time has come. */
export function crossAll(world: World): void {
  const { list, table, spots } = zones.in(world);
  if (list.length === 0 && table.count === 0) return;
  const touched = spots.touched(world);
  const known = new Map<number, number>();
  const occupied = new Set<number>();
  const { actor, placed, seen } = table.cells;
  for (const at of table.rows()) {
    known.set(pairOf(placed[at], actor[at]), at);
    occupied.add(placed[at]);
  }
  const fresh: { zone: PlacedZone; actor: number }[] = [];
  const unasked = new Set<number>();
  for (let i = 0; i < list.length; i++) {
    const zone = list[i];
    // Where nobody is, and nobody was.
    if (touched[i] === 0 && !occupied.has(zone.index)) continue;
    const rows = world.goesOn(zone.rule) ? (touched[i] === 1 ? insiders(world, zone) : NOBODY) : undefined;
    if (!rows) {
      unasked.add(zone.index);
      continue;
    }
    for (const row of rows) {
      const handle = world.actors.handle(row);
      const at = known.get(pairOf(zone.index, handle));
      if (at === undefined) fresh.push({ zone, actor: handle });
      else seen[at] = world.tick;
    }
  }
  // Where the tick had no steps left to look, those who were inside are.
  if (unasked.size > 0) for (const at of known.values()) if (unasked.has(placed[at])) seen[at] = world.tick;
  if (table.count > 0) leaveUnseen(world);
  for (const { zone, actor: entering } of world.turns.sort(fresh, (one) => one.actor)) enter(world, zone, entering);
  if (table.count > 0) pulseAll(world);
}

function leaveUnseen(world: World): void {
  const { byPlace, table } = zones.in(world);
  const of = table.cells;
  for (const handle of world.turns.rows(table)) {
    const at = table.rowOf(handle);
    if (at < 0 || of.seen[at] === world.tick) continue;
    const who = of.actor[at];
    const zone = byPlace.get(of.placed[at]);
    table.remove(at);
    if (zone) announce(world, events.zoneLeft, zone, who, zone.onLeave);
  }
}

export function enter(world: World, zone: PlacedZone, actor: number): void {
  // What an earlier zone did on this tick may have taken it away.
  if (world.actors.rowOf(actor) < 0) return;
  const { table } = zones.in(world);
  const at = table.add();
  const cells = {
    actor,
    placed: zone.index,
    since: world.tick,
    seen: world.tick,
    next: zone.every === 0 ? 0 : world.tick + zone.every,
  };
  table.write(at, cells);
  announce(world, events.zoneEntered, zone, actor, zone.onEnter);
}

export function announce(world: World, event: EventSpec<typeof fields>, { id }: PlacedZone, actor: number, then: CompiledThen): void {
  const row = world.actors.rowOf(actor);
  world.since(row < 0 ? 0 : headingCause(world, row), () =>
    world.follow(event, { subject: actor, source: actor }, { zone: id }, () => then(world, World.alone(actor))),
  );
}

export function pulseAll(world: World): void {
  const { byPlace, table } = zones.in(world);
  const of = table.cells;
  for (const handle of world.turns.rows(table)) {
    const at = table.rowOf(handle);
    if (at < 0 || of.next[at] === 0 || of.next[at] > world.tick) continue;
    const zone = byPlace.get(of.placed[at]);
    if (!zone) continue;
    of.next[at] = zone.every === 0 ? 0 : world.tick + zone.every;
    zone.inside(world, World.alone(of.actor[at]));
  }
}

/** Under edited rules who is inside a zone that is still placed stays inside; one that is gone is left without a word. */
export function followZones(world: World, before: World): void {
  const moved = followPlaced(before.rules, world.rules, 'zone');
  const { list, table } = zones.in(world);
  const { placed, next } = table.cells;
  for (let at = 0; at < table.high; at++) {
    if (table.live[at] === 0) continue;
    const index = moved.get(placed[at]) ?? -1;
    const zone = list.find((one) => one.index === index);
    if (!zone) table.remove(at);
    else {
      placed[at] = index;
      next[at] = zone.every === 0 ? 0 : next[at] === 0 ? world.tick + zone.every : next[at];
    }
  }
}
