import { toGrid } from '../../math/grid.js';
import { World } from '../../world/world.js';
import { hit, miss } from '../abilities/hits.js';
import { abilities } from '../abilities/state.js';
import { counts } from '../actors/index.js';
import { actorsWithin } from '../movement/index.js';
import type { Area } from './compile.js';
import { deliveries, type Deliveries } from './state.js';
import { isRoomFor } from './room.js';
import { events } from './events.js';

/** Marks a circle of ground for an ability: it lands there after its delay, where it was aimed. */
export function layArea(world: World, index: number, kind: Area, user: number, x: number, y: number): void {
  const state = deliveries.in(world);
  const parties = World.alone(user);
  const ticks = (seconds: number) => Math.max(0, Math.ceil(seconds * world.rules.tickRate - 1e-9));
  const lands = world.tick + ticks(kind.delay.run(world, parties));
  if (!isRoomFor(world, state.areas, index)) return;
  state.areas.insert({
    ability: index,
    user,
    x: toGrid(x),
    y: toGrid(y),
    radius: Math.max(0, kind.radius.run(world, parties)),
    lands,
    ends: lands + ticks(kind.lasts.run(world, parties)),
    pulse: lands,
    cause: world.cause,
  });
}

/** A tick of all areas: those whose time has come land, those that stay do to whom they hold, those that are over go. */
export function landAll(world: World): void {
  const state = deliveries.in(world);
  const { areas, ground } = state;
  if (areas.count === 0) return;
  for (const handle of world.turns.rows(areas)) {
    const row = areas.rowOf(handle);
    if (row >= 0) world.since(ground.cause[row], () => advance(world, state, row));
  }
}

function advance(world: World, state: Deliveries, row: number): void {
  const { areas, ground } = state;
  const ability = abilities.of(world.rules).list[ground.ability[row]];
  if (ability?.deliver?.by !== 'area') return areas.remove(row);
  const kind = ability.deliver;
  const lands = ground.lands[row];
  // Where the tick has no steps left it lands, and does what it does, at the next one.
  if (lands > world.tick || !world.goesOn(ability.rule)) return;
  const handle = areas.handle(row);
  const user = ground.user[row];
  // An area that acts more than once acts at its last moment only where a pulse falls there.
  const over = ground.ends[row] <= world.tick;
  const isLanding = ground.pulse[row] === lands;
  if (ground.pulse[row] <= world.tick && (isLanding || kind.every > 0)) {
    ground.pulse[row] = kind.every > 0 ? world.tick + kind.every : ground.ends[row] + 1;
    const held = heldBy(world, kind, user, row);
    if (isLanding) world.emit(events.areaLanded, { subject: user, source: user }, { ability: ability.id, caught: held.length });
    if (held.length > 0) ground.met[row] = 1;
    for (const target of held) if (world.actors.rowOf(target) >= 0) hit(world, ability, user, target);
  }
  if (!over || areas.rowOf(handle) < 0) return;
  // One that stays has missed when it is over and never caught anybody.
  const missed = ground.met[row] === 0;
  areas.remove(row);
  if (missed) miss(world, ability, user);
}

function heldBy(world: World, { who }: Area, user: number, row: number): readonly number[] {
  const { x, y, radius } = deliveries.in(world).ground;
  const own = world.actors.rowOf(user);
  return actorsWithin(world, x[row], y[row], radius[row])
    .filter((other) => (own < 0 ? who === 'anyone' : counts(world, own, other, who)))
    .map((other) => world.actors.handle(other));
}
