import { toWhole } from '../../math/grid.js';
import { SPAWN_STEPS } from '../../world/budget.js';
import { type GameEvent } from '../../world/events.js';
import { World } from '../../world/world.js';
import { typeOf } from '../actors/index.js';
import { followPlaced } from '../arena/index.js';
import { bringIn, lives } from '../lives/index.js';
import { actorsWithin } from '../movement/index.js';
import { countMade, layDown } from '../pickups/index.js';
import { isDown } from '../states/index.js';
import { livesTable } from '../lives/tables.js';
import { pickupsTable } from '../pickups/tables.js';
import { type CompiledSpawners, type Made, type Spawner, spawners } from './state.js';
import { events } from './events.js';

/** At most this many are made at a time. */
export const MOST_AT_ONCE = 100;

/** A ruleset in which nothing is made. */
export const NO_SPAWNERS: CompiledSpawners = { list: [], byPlace: new Map(), waiting: new Map() };

export function begin(world: World, { index, is, ticks }: Spawner): void {
  const { table } = spawners.in(world);
  const row = table.add();
  table.cells.placed[row] = index;
  table.cells.next[row] = is === 'on' ? 0 : world.tick + Math.max(1, ticks);
}

/** How many that a placed spawner made are there: foes that are up, and pickups that lie. */
export const aliveOf = (world: World, index: number): number => aliveOfEach(world)[index];

/** The same for each placed thing, by its position among them. */
function aliveOfEach(world: World): Int32Array {
  const made = lives.in(world).table.cells.made;
  const { live, high } = world.actors;
  const alive = countMade(world);
  for (let row = 0; row < high; row++) if (made[row] > 0 && live[row] === 1 && !isDown(world, row)) alive[made[row] - 1]++;
  return alive;
}

export function makeAll(world: World): void {
  const { list, byPlace, table } = spawners.in(world);
  if (list.length === 0) return;
  const { placed, next } = table.cells;
  // How many there are of each, counted once for all that wait, until something is made.
  let alive: Int32Array | undefined;
  for (let row = 0; row < table.high; row++) {
    if (table.live[row] === 0) continue;
    const spawner = byPlace.get(placed[row]);
    if (!spawner || spawner.is === 'on') continue;
    // A wave comes when none of the last is left and its pause is over.
    if (spawner.is === 'wave' && next[row] === 0 && (alive ??= aliveOfEach(world))[spawner.index] === 0)
      next[row] = world.tick + spawner.ticks;
    if (next[row] === 0 || next[row] > world.tick || !isVisited(world, spawner)) continue;
    // What a tick can't do any more is made in a later one.
    if (!world.spend(1, spawner.rule)) return;
    next[row] = spawner.is === 'every' ? world.tick + Math.max(1, spawner.ticks) : 0;
    make(world, row, spawner);
    alive = undefined;
  }
}

export function hear(world: World, event: GameEvent): void {
  const { waiting, table } = spawners.in(world);
  const placed = table.cells.placed;
  for (const spawner of waiting.get(event.name) ?? []) {
    if (!world.spend(1, spawner.rule)) return;
    if (!spawner.event!.matches(world, event, event.subject) || !isVisited(world, spawner)) continue;
    for (const row of table.rows()) if (placed[row] === spawner.index) make(world, row, spawner);
  }
}

/** Whether a player is near enough for it to make something. */
function isVisited(world: World, { near, thing }: Spawner): boolean {
  return near === 0 || actorsWithin(world, thing.x, thing.y, near).some((row) => typeOf(world, row).kind === 'player');
}

export function make(world: World, row: number, spawner: Spawner): void {
  const { table } = spawners.in(world);
  const { waves, made } = table.cells;
  const nobody = World.alone(0);
  const wanted = Math.min(MOST_AT_ONCE, toWhole(spawner.count.run(world, nobody)));
  const room = Math.max(0, spawner.most - aliveOf(world, spawner.index));
  let count = 0;
  for (let n = 0; n < wanted && count < room && world.spend(SPAWN_STEPS, spawner.rule); n++)
    if (makeOne(world, row, spawner, made[row]++)) count++;
  waves[row]++;
  world.emit(events.waveBegan, {}, { spawner: spawner.id, wave: waves[row], made: count });
}

/** Puts one of its kinds where its turn is. Returns false where nothing was drawn. */
function makeOne(world: World, row: number, { what, spread, luck, thing, index }: Spawner, turn: number): boolean {
  const nobody = World.alone(0);
  const weights = what.map(({ weight }) => Math.max(0, weight.run(world, nobody)));
  // All are rolled for each thing, so that its weights move nobody's place.
  const [drawn, dx, dy] = [luck.what, luck.x, luck.y].map((purpose) => world.roll(purpose, row + 1));
  let left = drawn * weights.reduce((sum, weight) => sum + weight, 0);
  const one = what[weights.findIndex((weight) => (left -= weight) < 0)] as Made | undefined;
  if (!one || (one.actor < 0 && one.pickup < 0)) return false;
  const points = thing.points ?? [];
  const at = points.length > 0 ? points[turn % points.length] : thing;
  const x = at.x + (dx * 2 - 1) * spread;
  const y = at.y + (dy * 2 - 1) * spread;
  if (one.actor >= 0) return bringIn(world, one.actor, one.team, { x, y }, { made: index + 1 }) !== 0;
  layDown(world, one.pickup, x, y, { made: index + 1 });
  return true;
}

/** Under edited rules a spawner that is still placed goes on counting; what it made is still its own. */
export function followSpawners(world: World, before: World): void {
  const moved = followPlaced(before.rules, world.rules, 'spawner');
  const { list, table } = spawners.in(world);
  const { placed, next } = table.cells;
  const kept = new Set<number>();
  for (let row = 0; row < table.high; row++) {
    if (table.live[row] === 0) continue;
    const spawner = list.find(({ index }) => index === moved.get(placed[row]));
    if (!spawner) {
      table.remove(row);
      continue;
    }
    kept.add(spawner.index);
    placed[row] = spawner.index;
    const soonest = world.tick + Math.max(1, spawner.ticks);
    // A shorter time counts from now; one that waits for its wave or an event goes on waiting.
    if (spawner.is === 'on') next[row] = 0;
    else if (next[row] > soonest || (next[row] === 0 && spawner.is === 'every')) next[row] = soonest;
  }
  for (const spawner of list) if (!kept.has(spawner.index)) begin(world, spawner);
  followMade(world, moved);
}

/** What spawners made is theirs where they are placed now; nobody's where they are gone. */
function followMade(world: World, moved: ReadonlyMap<number, number>): void {
  for (const table of [livesTable.in(world), pickupsTable.in(world)]) {
    const { made } = table.cells;
    for (const row of table.rows()) if (made[row] > 0) made[row] = (moved.get(made[row] - 1) ?? -1) + 1;
  }
}
