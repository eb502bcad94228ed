import type { Parties } from '../../formula/index.js';
import { toGrid } from '../../math/grid.js';
import type { GameEvent } from '../../world/events.js';
import { World } from '../../world/world.js';
import { allActors, teamOf } from '../actors/index.js';
import { addModifier, attributes, removeModifiers, settle } from '../attributes/index.js';
import { harmShares } from '../lives/index.js';
import { placeOf } from '../movement/index.js';
import { givePoints } from '../trees/index.js';
import type { Track } from './compile.js';
import { tracks } from './state.js';
import type { Share } from './schema.js';
import { events } from './events.js';

/** Who gets what of an amount that somebody earned. */
type Parts = readonly { readonly actor: number; readonly amount: number }[];

const isPlayer = (world: World, actor: number): boolean => {
  const row = world.actors.rowOf(actor);
  return row >= 0 && tracks.of(world.rules).players[world.actors.cells.type[row]];
};

/**
 * Divides what `earner` earned among those who share in it. By help: each gets the part of the harm to `fallen` that was
 * theirs; where nobody's is known, or nobody fell, all is the earner's.
 */
export function divide(world: World, amount: number, earner: number, fallen: number, share: Share | undefined): Parts {
  if (!share) return [{ actor: earner, amount }];
  const from = placeOf(world, world.actors.rowOf(earner));
  const near = (actor: number) => {
    const { x, y } = placeOf(world, world.actors.rowOf(actor));
    const { within } = share;
    return within === undefined || (x - from.x) * (x - from.x) + (y - from.y) * (y - from.y) <= within * within;
  };
  const all = share.among === 'everyone' ? allActors(world) : teamOf(world, earner);
  const members = all.filter((actor) => isPlayer(world, actor) && (actor === earner || near(actor)));
  if (share.how === 'full') return members.map((actor) => ({ actor, amount }));
  if (share.how === 'equal') return members.map((actor) => ({ actor, amount: toGrid(amount / members.length) }));
  const harm = harmShares(world, fallen).filter(({ by }) => members.includes(by));
  const sum = harm.reduce((total, one) => total + one.amount, 0);
  if (sum <= 0) return [{ actor: earner, amount }];
  return harm.map((one) => ({ actor: one.by, amount: toGrid((amount * one.amount) / sum) }));
}

/** Gives experience to a player: levels are reached one after the other, each with what follows from it. At the top the rest is lost. */
export function award(world: World, actor: number, index: number, amount: number, source: number): void {
  if (amount <= 0 || !isPlayer(world, actor)) return;
  const { list, cells } = tracks.in(world);
  const track = list[index];
  const { level, experience } = cells[index];
  const row = world.actors.rowOf(actor);
  const room = roomAbove(world, track, level.data[row], experience.data[row]);
  const given = Math.min(toGrid(amount), room);
  experience.data[row] = toGrid(experience.data[row] + given);
  world.touch(row);
  const data = { track: track.id, asked: toGrid(amount), given, lost: toGrid(amount - given), level: level.data[row] };
  world.follow(events.experienceGained, { subject: actor, source }, data, () => rise(world, actor, track));
}

/** How much more somebody can earn before the top. Where nothing is carried over, every grant ends at the next level at most. */
function roomAbove(world: World, track: Track, level: number, experience: number): number {
  if (level >= track.levels) return 0;
  if (!track.carry) return toGrid(track.need(world.rules, level) - experience);
  let room = -experience;
  for (let at = level; at < track.levels; at++) room += track.need(world.rules, at);
  return Math.max(0, toGrid(room));
}

function rise(world: World, actor: number, track: Track): void {
  const { level, experience, peak } = tracks.in(world).cells[track.index];
  // Asked anew each time: what follows from a level may bring experience of its own, or take the actor away.
  for (let row = world.actors.rowOf(actor); row >= 0; row = world.actors.rowOf(actor)) {
    const need = level.data[row] < track.levels ? track.need(world.rules, level.data[row]) : Infinity;
    if (experience.data[row] < need) return;
    experience.data[row] = toGrid(experience.data[row] - need);
    const reached = ++level.data[row];
    // What a fall took and is earned again was rewarded before.
    const first = reached > peak.data[row];
    peak.data[row] = Math.max(peak.data[row], reached);
    world.touch(row);
    if (track.growth.length > 0) settle(world, attributes.in(world), row);
    if (first) for (const { tree, each } of track.points) givePoints(world, actor, tree, each);
    const parties: Parties = World.alone(actor);
    world.follow(events.levelReached, { subject: actor, source: actor }, { track: track.id, level: reached }, () => {
      for (const { from, to, every, then } of first ? track.onLevel : [])
        if (reached >= from && reached <= to && (reached - from) % every === 0) then(world, parties);
    });
  }
}

/** Takes what a fall costs. */
export function loseByFall(world: World, event: GameEvent): void {
  const { list, cells } = tracks.in(world);
  const actor = event.subject;
  if (!isPlayer(world, actor)) return;
  const row = world.actors.rowOf(actor);
  for (const track of list) {
    if (!track.loss || track.loss.share === 0) continue;
    const { level, experience } = cells[track.index];
    const before = level.data[row];
    // Of a level that has been reached its own need is what it is worth; below it, what has been earned in it.
    const base = track.loss.levels && before < track.levels ? track.need(world.rules, before) : experience.data[row];
    let left = toGrid(base * track.loss.share);
    let lost = 0;
    for (;;) {
      const part = Math.min(left, experience.data[row]);
      experience.data[row] = toGrid(experience.data[row] - part);
      left = toGrid(left - part);
      lost = toGrid(lost + part);
      if (left <= 0 || !track.loss.levels || level.data[row] <= 1) break;
      level.data[row]--;
      experience.data[row] = track.need(world.rules, level.data[row]);
    }
    if (lost === 0) continue;
    world.touch(row);
    if (level.data[row] !== before) settle(world, attributes.in(world), row, true);
    world.emit(events.experienceLost, { subject: actor, source: event.source }, { track: track.id, lost, level: level.data[row] });
  }
}

/** What holds the modifiers of a track's growth: no effect has a number below 0. */
export const growthHolder = (track: number): number => -1 - track;
export const trackOfHolder = (holder: number): number => -1 - holder;

/** Puts what grows with levels on an actor; what was there of it is taken off before, for so many tracks. */
export function grow(world: World, row: number, before: number): void {
  const { list, players } = tracks.in(world);
  const stats = attributes.in(world);
  for (let k = 0; k < before; k++) removeModifiers(stats, row, growthHolder(k));
  if (!players[world.actors.cells.type[row]]) return;
  const actor = world.actors.handle(row);
  const parties = World.alone(actor);
  let any = before > 0;
  for (const track of list)
    track.growth.forEach(({ attribute, amount, live }, part) => {
      any = true;
      addModifier(stats, row, actor, {
        source: actor,
        attribute,
        operation: 'add',
        amount: amount.run(world, parties),
        live,
        holder: growthHolder(track.index),
        part,
      });
    });
  if (any) settle(world, stats, row, true);
}
