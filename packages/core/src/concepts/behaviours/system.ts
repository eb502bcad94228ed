import { distanceOf } from '../../math/distance.js';
import { abilities, canUse, useAbility } from '../abilities/index.js';
import type { Ability } from '../abilities/compile.js';
import { counts } from '../actors/index.js';
import { arena, sees, type PlacedAs } from '../arena/index.js';
import { homeOf, lives } from '../lives/index.js';
import { actorsWithin, bodyRadius, headFor, placeOf, sendTo } from '../movement/index.js';
import { isDown } from '../states/index.js';
import { World } from '../../world/world.js';
import type { BehaviourEntry } from './schema.js';
import { bodiesTable } from '../movement/tables.js';
import { actorChapter } from '../actors/schema.js';
import type { Rules } from '../../ruleset/rules.js';
import { type Behaviours, behaviours, type Mind } from './state.js';

/** How often a mind thinks, in seconds. In between a body goes on with what it began. */
const THINKING = 0.25;

/** Near enough to a point to have reached it. */
const THERE = 2;

export const thinkingTicks = (world: World) => Math.max(1, Math.round(THINKING * world.rules.tickRate));

export function thinkAll(world: World): void {
  const { list, table, minded } = behaviours.in(world);
  const { actors } = world;
  // Looked up at each use: who thinks may bring somebody in, and a table that grows has other arrays from then on.
  const of = table.cells;
  const rest = thinkingTicks(world);
  const due: number[] = [];
  for (const row of minded.in(world)) if (of.thinks[row] <= world.tick) due.push(row);
  if (due.length === 0) return;
  // Who found a tick without steps for it comes first at the next one.
  world.turns.sort(due, (row) => actors.handle(row)).sort((a, b) => of.thinks[a] - of.thinks[b]);
  for (const row of due) {
    if (actors.live[row] === 0) continue;
    const mind = list[actors.cells.type[row]];
    if (!world.goesOn(mind.rule)) return;
    of.thinks[row] = world.tick + rest;
    if (isDown(world, row)) continue;
    think(world, row, mind);
    const { x, y } = placeOf(world, row);
    of.wasX[row] = x;
    of.wasY[row] = y;
  }
}

export function think(world: World, row: number, mind: Mind): void {
  const { behaviour } = mind;
  switch (behaviour!.do) {
    case 'stand':
      return stand(world, row, behaviour as Extract<BehaviourEntry, { do: 'stand' }>);
    case 'wander':
      return wander(world, row, mind, behaviour as Extract<BehaviourEntry, { do: 'wander' }>);
    case 'follow':
      return follow(world, row, mind, behaviour as Extract<BehaviourEntry, { do: 'follow' }>);
    case 'chase':
      return chase(world, row, behaviour as Extract<BehaviourEntry, { do: 'chase' }>);
    case 'flee':
      return flee(world, row, behaviour as Extract<BehaviourEntry, { do: 'flee' }>);
  }
}

/** The nearest actor within a distance that counts; the one that it minds already where that is as good. */
export function nearest(
  world: World,
  row: number,
  within: number,
  { who = 'foes', sight = false }: { who?: ActorWho | undefined; sight?: boolean | undefined },
): number {
  const at = placeOf(world, row);
  let best = -1;
  let least = Infinity;
  for (const other of actorsWithin(world, at.x, at.y, within)) {
    if (!counts(world, row, other, who)) continue;
    const place = placeOf(world, other);
    const apart = distanceOf(at, place);
    if (apart >= least || (sight && !sees(world, at, place))) continue;
    best = other;
    least = apart;
  }
  return best;
}

type ActorWho = NonNullable<Extract<BehaviourEntry, { do: 'chase' }>['who']>;

export function stand(world: World, row: number, behaviour: Extract<BehaviourEntry, { do: 'stand' }>): void {
  const reach = longestReach(world, row);
  const other = reach > 0 ? nearest(world, row, reach, behaviour) : -1;
  if (other >= 0) useOn(world, row, other);
}

export function wander(world: World, row: number, mind: Mind, { within }: { within: number }): void {
  if (!arrived(world, row, mind)) return;
  const home = homeOf(world, row);
  const actor = world.actors.handle(row);
  const [dx, dy] = mind.luck.map((purpose) => (world.roll(purpose, actor) * 2 - 1) * within);
  sendTo(world, actor, home.x + dx, home.y + dy);
}

/** Whether a body has stopped, and paused for as long as it does. */
export function arrived(world: World, row: number, { pause }: Mind): boolean {
  const body = bodiesTable.in(world);
  const pauses = behaviours.in(world).table.cells.pauses;
  if (body.cells.toGoal[row] === 1 && !isStuck(world, row)) return false;
  if (pauses[row] === 0 && pause > 0) {
    pauses[row] = world.tick + pause;
    return false;
  }
  if (pauses[row] > world.tick) return false;
  pauses[row] = 0;
  return true;
}

/** Whether a body has got nowhere since its mind last thought: a wall keeps it from its goal. */
function isStuck(world: World, row: number): boolean {
  const { table } = behaviours.in(world);
  return distanceOf(placeOf(world, row), { x: table.cells.wasX[row], y: table.cells.wasY[row] }) < 0.5;
}

/** The points that the spawner of an actor sends it along; undefined where it has none. */
function alongOf(world: World, row: number): PlacedAs<'spawner'>['along'] {
  const made = lives.in(world).table.cells.made[row];
  const thing = made === 0 ? undefined : arena.of(world.rules).placed[made - 1];
  return thing && 'spawner' in thing && (thing.along?.length ?? 0) > 0 ? thing.along : undefined;
}

export function follow(world: World, row: number, mind: Mind, { points: own, turn }: Extract<BehaviourEntry, { do: 'follow' }>): void {
  // Who comes from a spawner goes along the points that it says, where it says some.
  const points = alongOf(world, row) ?? own;
  const { table } = behaviours.in(world);
  const [leg, step] = [table.cells.leg, table.cells.step];
  // An edit may have taken points away.
  if (leg[row] >= points.length) leg[row] = 0;
  const actor = world.actors.handle(row);
  const at = placeOf(world, row);
  if (distanceOf(at, points[leg[row]]) > THERE + bodyRadius(world, row))
    return sendTo(world, actor, points[leg[row]].x, points[leg[row]].y);
  if (!arrived(world, row, mind)) return;
  if (turn === 'back' && (leg[row] + step[row] < 0 || leg[row] + step[row] >= points.length)) step[row] = -step[row];
  const next = points.length === 1 ? 0 : (leg[row] + (turn === 'back' ? step[row] : 1) + points.length) % points.length;
  leg[row] = next;
  sendTo(world, actor, points[next].x, points[next].y);
}

export function chase(world: World, row: number, behaviour: Extract<BehaviourEntry, { do: 'chase' }>): void {
  const { table } = behaviours.in(world);
  const quarry = table.cells.quarry;
  const actor = world.actors.handle(row);
  const at = placeOf(world, row);
  const home = homeOf(world, row);
  const leash = behaviour.leash ?? behaviour.within * 2;
  const other = nearest(world, row, behaviour.within, behaviour);
  if (other < 0 || distanceOf(placeOf(world, other), home) > leash) {
    if (quarry[row] !== 0) {
      quarry[row] = 0;
      sendTo(world, actor, home.x, home.y);
    }
    return;
  }
  quarry[row] = world.actors.handle(other);
  const place = placeOf(world, other);
  const reach = shortestReach(world, row) + bodyRadius(world, other);
  // Within reach of all it has it stands, so that what standing needs can be used.
  if (distanceOf(at, place) <= reach) headFor(world, actor, 0, 0);
  else sendTo(world, actor, place.x, place.y);
  useOn(world, row, other);
}

export function flee(world: World, row: number, behaviour: Extract<BehaviourEntry, { do: 'flee' }>): void {
  const { table } = behaviours.in(world);
  const quarry = table.cells.quarry;
  const actor = world.actors.handle(row);
  const other = nearest(world, row, behaviour.within, behaviour);
  if (other < 0) {
    if (quarry[row] !== 0) {
      quarry[row] = 0;
      headFor(world, actor, 0, 0);
    }
    return;
  }
  quarry[row] = world.actors.handle(other);
  const [at, from] = [placeOf(world, row), placeOf(world, other)];
  const length = distanceOf(at, from);
  if (length === 0) headFor(world, actor, 1, 0);
  else headFor(world, actor, (at.x - from.x) / length, (at.y - from.y) / length);
}

const owned = new WeakMap<Rules, Behaviours['owned']>();

/** The abilities of each kind of actor; the same in all worlds under the same rules. */
export function abilitiesOfKinds(rules: Rules): Behaviours['owned'] {
  const known = owned.get(rules);
  if (known) return known;
  const byId = new Map(abilities.of(rules).list.map((ability) => [ability.id, ability]));
  const found = actorChapter.of(rules).map((kind) => kind.abilities.flatMap((id) => byId.get(id) ?? []));
  owned.set(rules, found);
  return found;
}

const ownedBy = (world: World, row: number): readonly Ability[] => behaviours.in(world).owned[world.actors.cells.type[row]];

function reachOf(world: World, row: number, { target }: Ability): number {
  return target.range ? target.range.run(world, World.alone(world.actors.handle(row))) : Infinity;
}

function longestReach(world: World, row: number): number {
  return ownedBy(world, row).reduce((most, ability) => Math.max(most, Math.min(5000, reachOf(world, row, ability))), 0);
}

function shortestReach(world: World, row: number): number {
  const all = ownedBy(world, row);
  return all.length === 0 ? 0 : all.reduce((least, ability) => Math.min(least, reachOf(world, row, ability)), 5000);
}

/** Uses the first of its abilities that it can use on somebody, in the order in which its kind has them. What it can't is not asked for. */
function useOn(world: World, row: number, other: number): void {
  const actor = world.actors.handle(row);
  const { x, y } = placeOf(world, other);
  const target = other;
  for (const ability of ownedBy(world, row))
    if (canUse(world, actor, ability, { x, y, target })) return useAbility(world, actor, ability.id, { x, y, target });
}
