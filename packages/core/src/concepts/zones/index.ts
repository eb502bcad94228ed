import type { CompileContext, CompiledThen } from '../../ruleset/context.js';
import type { Path } from '../../ruleset/problem.js';
import { labelOf, type Rules } from '../../ruleset/rules.js';
import { defineConcept } from '../../world/concept.js';
import { entry } from '../../world/event-fields.js';
import { defineEvents, type EventSpec } from '../../world/events.js';
import { World } from '../../world/world.js';
import { followPlaced, type PlacedAs, placements } from '../arena/index.js';
import { actorsWithin, headingCause, placeOf } from '../movement/index.js';
import { findings } from './findings.js';
import { schema, zoneChapter, type ZoneEntry } from './schema.js';
import { insideTable } from './tables.js';
import { type PlacedZone, type ZoneRules, zones } from './state.js';

export { zones } from './state.js';
export type { ZoneEntry } from './schema.js';

const fields = { zone: entry('zones') };
const patterns = ['zone'];
const events = defineEvents({
  zoneEntered: {
    label: 'a zone is entered',
    when: 'After movement, once somebody for whom it is a zone has their middle in it.',
    fields,
    patterns,
    arises: { from: 'zones', field: 'zone' },
    see: 'owner',
    announced: true,
    sentence: (e, speak) => `${e.who} enters ${speak.label('zones', e.data['zone']).toLowerCase()}`,
  },
  zoneLeft: {
    label: 'a zone is left',
    when: 'After movement, once somebody who was in it has left it, or it is no longer a zone for them.',
    fields,
    patterns,
    arises: { from: 'zones', field: 'zone' },
    see: 'owner',
    announced: true,
    sentence: (e, speak) => `${e.who} leaves ${speak.label('zones', e.data['zone']).toLowerCase()}`,
  },
});

function compileZone(context: CompileContext, entry: ZoneEntry, own: Partial<ZoneEntry>, at: Path, placed: Path): ZoneRules {
  const all = { ...entry, ...own };
  // What is not said anew keeps its place, and with it its luck.
  const path = (field: keyof ZoneEntry) => [...(field in own ? placed : at), field];
  const ticks = all.every === undefined ? 0 : context.ticks(all.every.time);
  return {
    id: entry.id,
    rule: context.ruleAt(at),
    who: all.who === undefined ? undefined : context.condition(all.who),
    onEnter: context.then(all.onEnter, path('onEnter')),
    onLeave: context.then(all.onLeave, path('onLeave')),
    every: all.every === undefined ? 0 : Math.max(1, ticks),
    inside: context.then(all.every?.then ?? [], [...path('every'), 'then']),
  };
}

/** Zones: stretches of the arena that do something to those who enter, stay and leave. Who is inside is said by their middle. */
export const zonesConcept = defineConcept(zones, {
  sections: { zones: { kind: 'chapter', title: 'Zones', entry: schema } },
  compile: (context) => {
    const entries = context.entries<ZoneEntry>('zones');
    // Also those that nothing places: what is wrong in them is told all the same.
    const unplaced = entries.map((entry, i) => compileZone(context, entry, {}, ['zones', i], []));
    return placements(context, 'zone').flatMap(({ index, thing }) => {
      if (!context.entry('zones', thing.zone)) return [];
      const i = context.index('zones', thing.zone);
      const own = thing.with as Partial<ZoneEntry> | undefined;
      const rules =
        own === undefined ? unplaced[i] : compileZone(context, entries[i], own, ['zones', i], ['arena', 'placed', index, 'with']);
      return [{ ...rules, index, thing }];
    });
  },
  tables: () => [insideTable],
  attach: (world, list) => ({ list, table: insideTable.in(world) }),
  events,
  findings,
  lifecycle: { rulesAdopted: followZones },
  systems: { overlaps: crossAll },
  display: (list, rules) =>
    list.map(({ id, index, thing: { x, y, radius, width, height } }) => ({
      id,
      label: labelOf(rules, 'zones', id),
      ...colourOf(rules, id),
      index,
      x,
      y,
      ...(radius !== undefined && { radius }),
      ...(width !== undefined && { width, height }),
    })),
});

const colourOf = (rules: Rules, id: string) => {
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
  const { x, y, radius, width = 0, height = 0 } = thing;
  const reach = radius ?? Math.sqrt(width * width + height * height) / 2;
  const near = actorsWithin(world, x, y, reach);
  if (!world.lookThrough(near.length * ROWS_INSIDE)) return undefined;
  return near.filter((row) => {
    const at = placeOf(world, row);
    return isInZone(thing, at.x, at.y) && (!who || who(world, World.alone(world.actors.handle(row))) !== 0);
  });
}

/** Handles are below this. */
const HANDLES = 2147483648;
/** One number for a zone and somebody in it. */
const pairOf = (placed: number, actor: number) => placed * HANDLES + actor;

/** First who has left, then who has entered, zone by zone; then what it does to those inside whose time has come. */
function crossAll(world: World): void {
  const { list, table } = zones.in(world);
  if (list.length === 0 && table.count === 0) return;
  const known = new Map<number, number>();
  const { actor, placed, seen } = table.cells;
  for (const at of table.rows()) known.set(pairOf(placed[at], actor[at]), at);
  const fresh: { zone: PlacedZone; actor: number }[] = [];
  const unasked = new Set<number>();
  for (const zone of list) {
    const rows = world.goesOn(zone.rule) ? insiders(world, zone) : undefined;
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

/** Finds zones by their position among the placed things. */
function byPlace(list: readonly PlacedZone[]): (placed: number) => PlacedZone | undefined {
  const places = new Map(list.map((zone) => [zone.index, zone]));
  return (placed) => places.get(placed);
}

function leaveUnseen(world: World): void {
  const { list, table } = zones.in(world);
  const zoneOf = byPlace(list);
  const of = table.cells;
  for (const handle of world.turns.rows(table)) {
    const at = table.rowOf(handle);
    if (at < 0 || of.seen[at] === world.tick) continue;
    const who = of.actor[at];
    const zone = zoneOf(of.placed[at]);
    table.remove(at);
    if (zone) announce(world, events.zoneLeft, zone, who, zone.onLeave);
  }
}

function enter(world: World, zone: PlacedZone, actor: number): void {
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

function announce(world: World, event: EventSpec<typeof fields>, { id }: PlacedZone, actor: number, then: CompiledThen): void {
  const row = world.actors.rowOf(actor);
  world.since(row < 0 ? 0 : headingCause(world, row), () =>
    world.follow(event, { subject: actor, source: actor }, { zone: id }, () => then(world, World.alone(actor))),
  );
}

function pulseAll(world: World): void {
  const { list, table } = zones.in(world);
  const zoneOf = byPlace(list);
  const of = table.cells;
  for (const handle of world.turns.rows(table)) {
    const at = table.rowOf(handle);
    if (at < 0 || of.next[at] === 0 || of.next[at] > world.tick) continue;
    const zone = zoneOf(of.placed[at]);
    if (!zone) continue;
    of.next[at] = zone.every === 0 ? 0 : world.tick + zone.every;
    zone.inside(world, World.alone(of.actor[at]));
  }
}

/** Under edited rules who is inside a zone that is still placed stays inside; one that is gone is left without a word. */
function followZones(world: World, before: World): void {
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
