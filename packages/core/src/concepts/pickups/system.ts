import { isTold } from '../../ruleset/visible.js';
import { LAY_STEPS } from '../../world/budget.js';
import { positionOf } from '../../ruleset/rules.js';
import { World } from '../../world/world.js';
import { arena, followPlaced, type PlacedAs, placements } from '../arena/index.js';
import { memory, nameNumber, recall, remember, forgetThing } from '../memory/index.js';
import { actorsWithin, headingCause, movement, type Spots } from '../movement/index.js';
import { type Pickup } from './compile.js';
import { events } from './events.js';
import { events as livesEvents } from '../lives/events.js';
import { timerTable } from '../../world/timers.js';
import { pickups, type Pickups } from './state.js';

/** At most so many lie in the arena at a time: those that are laid down beyond are not there. */
export const MOST_LYING = 2000;

/**
 * Puts a pickup down. `placed` and `made` are one more than the position of the placed thing or spawner that it comes from;
 * `owner` is the only one who may see and take it, 0 for everybody.
 */
export function layDown(world: World, index: number, x: number, y: number, { placed = 0, made = 0, owner = 0 } = {}): void {
  const { table, list, variants, lucks, placedLucks } = pickups.in(world);
  // What the arena itself places has its place in it in any case.
  if (placed === 0 && !world.spend(LAY_STEPS)) return;
  if (placed === 0 && table.count >= MOST_LYING) return world.emit(livesEvents.arenaFull, {}, { pickup: list[index].id });
  const row = table.add();
  const { lasts, drawnBefore, worth } = variants.get(placed - 1) ?? list[index];
  // Another each time that one lies there, whenever that is and whatever else does; never 0.
  const purpose = placedLucks.get(placed - 1) ?? lucks[index];
  const luck = drawnBefore ? 1 + Math.floor(world.roll(purpose, 0) * 0x7fffffff) : 0;
  const isShown = worth && isTold(world.rules, 'attributes', worth.attribute);
  const cells = {
    pickup: index,
    x,
    y,
    placed,
    made,
    owner,
    own: owner === 0 ? 0 : 1,
    luck,
    worth: isShown ? worth.amount.run(world, { owner: 0, source: 0, target: 0, luck }) : 0,
    fades: lasts === 0 ? 0 : world.tick + lasts,
  };
  table.write(row, cells);
  world.emit(events.pickupAppeared, owner === 0 ? {} : { subject: owner }, {
    pickup: list[index].id,
    x,
    y,
    ...(owner !== 0 && { own: true }),
  });
}

export function layAgain(world: World, index: number): void {
  const placement = placements(world.rules, 'pickup').find((one) => one.index === index);
  if (placement) layPlaced(world, index, placement.thing);
}

/** Lays down in a new world what its arena places. */
export function layAll(world: World): void {
  const placed = placements(world.rules, 'pickup');
  pickups.in(world).table.reserve(placed.length);
  for (const { index, thing } of placed) layPlaced(world, index, thing);
}

function layPlaced(world: World, index: number, thing: PlacedAs<'pickup'>): void {
  layDown(world, positionOf(world.rules, 'pickups', thing.pickup), thing.x, thing.y, { placed: index + 1 });
}

/** How many of the pickups that lie in the arena come from each placed thing, by its position among them. */
export function countMade(world: World): Int32Array {
  const { table } = pickups.in(world);
  const { made } = table.cells;
  const counts = new Int32Array(arena.of(world.rules).placed.length);
  for (let row = 0; row < table.high; row++) if (made[row] > 0 && table.live[row] === 1) counts[made[row] - 1]++;
  return counts;
}

/** The pickup that lies in a row: its entry's, or what this one says otherwise. */
function pickupAt(state: Pickups, row: number): Pickup {
  return state.variants.get(state.of.placed[row] - 1) ?? state.list[state.of.pickup[row]];
}

export function fadeAll(world: World): void {
  const state = pickups.in(world);
  const { table } = state;
  const fades = table.cells.fades;
  for (let row = 0; row < table.high; row++) {
    if (table.live[row] === 0 || fades[row] === 0 || fades[row] > world.tick) continue;
    const { id } = pickupAt(state, row);
    const owner = state.of.owner[row];
    goneFrom(world, row);
    world.emit(events.pickupFaded, owner === 0 ? {} : { subject: owner }, { pickup: id, ...(owner !== 0 && { own: true }) });
  }
  const until = state.own.cells.until;
  for (const row of state.own.rows()) if (until[row] !== 0 && until[row] <= world.tick) state.own.remove(row);
}

/** Takes a pickup out of the arena; one that comes back will. */
function goneFrom(world: World, row: number): void {
  const state = pickups.in(world);
  const { table, returnTimer } = state;
  const placed = table.cells.placed[row];
  const { returns } = pickupAt(state, row);
  forgetRow(world, row);
  table.remove(row);
  if (returns > 0 && placed > 0) world.setTimer(returnTimer, returns, 0, placed - 1);
}

/** Forgets who took or touched what lies in a row. */
function forgetRow(world: World, row: number): void {
  const { table, own, refused } = pickups.in(world);
  const thing = table.handle(row);
  forgetThing(world, thing);
  for (const at of own.rows()) if (own.cells.row[at] === row) own.remove(at);
  for (const at of refused.rows()) if (refused.cells.thing[at] === thing) refused.remove(at);
}

/** Where pickups lie, by row. */
function spotsOf(world: World, state: Pickups): Spots {
  const { lying, table, of } = state;
  if (lying.version === table.version) return lying.spots;
  const spots = Array.from({ length: table.high }, (_, row) =>
    table.live[row] === 1 ? { x: of.x[row], y: of.y[row], radius: pickupAt(state, row).radius } : undefined,
  );
  lying.spots.lay(world, spots);
  lying.version = table.version;
  return lying.spots;
}

/** Of those that touch a pickup and may take it, whose turn in this tick comes first takes it. */
export function takeTouched(world: World): void {
  const state = pickups.in(world);
  const { table } = state;
  const xs = state.of.x;
  const ys = state.of.y;
  // What is put down by a taking is touched from the next tick on.
  const { high } = table;
  const touched = spotsOf(world, state).touched(world);
  const { near } = movement.in(world);
  const standing = near.standing(world);
  // Whether anything was done since the tick's steps were last asked for.
  let done = true;
  for (let row = 0; row < high; row++) {
    if (table.live[row] === 0) continue;
    // Where nobody has moved meanwhile, nobody has come to where nobody was.
    const isTouched = touched[row] === 1 || near.standing(world) !== standing;
    if (!isTouched && !done) continue;
    const pickup = pickupAt(state, row);
    // Where the tick has no steps left, whoever touches the rest does so at the next one.
    if (!world.goesOn(pickup.rule)) return;
    done = isTouched;
    if (!isTouched) continue;
    for (const who of actorsWithin(world, xs[row], ys[row], pickup.radius)) {
      const actor = world.actors.handle(who);
      const only = state.of.owner[row];
      if (only !== 0 && only !== actor) continue;
      if (pickup.perPlayer && recall(world, nameNumber(world, actor), state.taken, table.handle(row))) continue;
      if (pickup.who && pickup.who(world, World.alone(actor)) === 0) {
        refuse(world, row, pickup, actor);
        continue;
      }
      take(world, row, pickup, actor);
      if (!pickup.perPlayer) break;
    }
  }
  forgetPassed(world);
}

/** Tells once, when they touch, why a pickup is not for somebody. */
export function refuse(world: World, row: number, pickup: Pickup, actor: number): void {
  const { table, refused } = pickups.in(world);
  if (!world.lookThrough(refused.count)) return;
  const thing = table.handle(row);
  const { actor: actors, thing: things } = refused.cells;
  for (const at of refused.rows()) if (actors[at] === actor && things[at] === thing) return void (refused.cells.tick[at] = world.tick);
  refused.insert({ actor, thing, tick: world.tick });
  const { id, condition, refusal } = pickup;
  world.since(headingCause(world, world.actors.rowOf(actor)), () =>
    world.emit(events.pickupRefused, { subject: actor }, { pickup: id, rule: condition, ...(refusal !== undefined && { says: refusal }) }),
  );
}

/** Whoever no longer touches what was refused is told again when they come back. */
function forgetPassed(world: World): void {
  const { refused } = pickups.in(world);
  const tick = refused.cells.tick;
  for (const at of refused.rows()) if (tick[at] !== world.tick) refused.remove(at);
}

export function take(world: World, row: number, pickup: Pickup, taker: number): void {
  const { table, taken, of } = pickups.in(world);
  const own = of.owner[row] !== 0;
  const luck = of.luck[row];
  // Gone before anything follows from it: whatever the actions do, nobody gets it twice.
  if (pickup.perPlayer) {
    remember(world, nameNumber(world, taker), taken, table.handle(row), pickup.returns);
    noteOwn(world, taker, row);
  } else goneFrom(world, row);
  // What brought the taker here is what led to it.
  world.since(headingCause(world, world.actors.rowOf(taker)), () =>
    world.follow(events.pickupTaken, { subject: taker, source: taker }, { pickup: pickup.id, ...(own && { own }) }, () =>
      pickup.then(world, luck === 0 ? World.alone(taker) : { ...World.alone(taker), luck }),
    ),
  );
}

function noteOwn(world: World, actor: number, row: number): void {
  const { table, own, taken } = pickups.in(world);
  const known = recall(world, nameNumber(world, actor), taken, table.handle(row));
  if (!known) return;
  const at = own.add();
  own.write(at, { actor, row, until: known.until });
}

/** Who comes back finds what they took before still gone for them. */
export function recallTaken(world: World, row: number): void {
  const { table } = pickups.in(world);
  if (memory.in(world).table.count === 0) return;
  const actor = world.actors.handle(row);
  for (const at of table.rows()) noteOwn(world, actor, at);
}

/** Under edited rules what is still placed stays what it was, taken or not; what is new lies there, what is no longer goes. */
export function followArena(world: World, before: World): void {
  const moved = followPlaced(before.rules, world.rules, 'pickup');
  const { table } = pickups.in(world);
  const placed = table.cells.placed;
  const now = new Map(placements(world.rules, 'pickup').map((placement) => [placement.index, placement.thing]));
  for (let row = 0; row < table.high; row++) {
    if (table.live[row] === 0 || placed[row] === 0) continue;
    const index = moved.get(placed[row] - 1) ?? -1;
    const thing = now.get(index);
    if (thing) {
      const cells = { placed: index + 1, x: thing.x, y: thing.y };
      table.write(row, cells);
    } else {
      forgetRow(world, row);
      table.remove(row);
    }
  }
  followReturns(world, moved);
  const kept = new Set(moved.values());
  for (const [index, thing] of now) if (!kept.has(index)) layPlaced(world, index, thing);
}

/** Those that are to come back do so where they are placed now. */
function followReturns(world: World, moved: ReadonlyMap<number, number>): void {
  const timers = timerTable.in(world);
  const { returnTimer } = pickups.in(world);
  const { handler, a } = timers.cells;
  for (let row = 0; row < timers.high; row++) {
    if (timers.live[row] === 0 || handler[row] !== returnTimer) continue;
    const index = moved.get(a[row]) ?? -1;
    if (index >= 0) a[row] = index;
    else timers.remove(row);
  }
}
