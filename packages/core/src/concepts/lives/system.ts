import type { TableOf } from '../../world/define-table.js';
import type { Rules } from '../../ruleset/rules.js';
import type { GameEvent } from '../../world/events.js';
import { World } from '../../world/world.js';
import { actors, removeActor, typeOf } from '../actors/index.js';
import { attributes, lowOf, poolsRest, restart, restPools } from '../attributes/index.js';
import { endEffectsOf } from '../effects/index.js';
import { headFor, placeActor, startPoint } from '../movement/index.js';
import { enterState, isDown, leaveState, states } from '../states/index.js';
import { events } from './events.js';
import { type harmTable } from './tables.js';
import { lives } from './state.js';

/** Who hurt somebody longer ago than this had no part in its fall, in seconds. */
const HELP_WINDOW = 10;

/** The same rules, under which nobody falls: for asking how a pool goes on that somebody falls at the bottom of. */
export function withoutFalls(rules: Rules): Rules {
  const compiled = lives.of(rules);
  const list = compiled.list.map((life) => ({ ...life, pool: -1 }));
  return { ...rules, compiled: new Map([...rules.compiled, [lives.id, { ...compiled, list }]]) };
}

/** Notes where an actor belongs: there it comes back to. */
export function settleAt(world: World, row: number, x: number, y: number, { listed = 0, made = 0 } = {}): void {
  const { table } = lives.in(world);
  const cells = { homeX: x, homeY: y, placed: 1, listed, made };
  table.write(row, cells);
}

/** The point that an actor belongs to: where it was put, or where its team begins. */
export function homeOf(world: World, row: number): { readonly x: number; readonly y: number } {
  const { table } = lives.in(world);
  return table.cells.placed[row] === 1 ? { x: table.cells.homeX[row], y: table.cells.homeY[row] } : startPoint(world, row);
}

/** Whoever lowers a pool that somebody falls at the bottom of has a part in its fall. */
export function noteHarm(world: World, event: GameEvent): void {
  if (event.name !== 'attributeChanged' || event.data['how'] !== 'hurt' || event.source === 0 || event.source === event.subject) return;
  const { list, harm } = lives.in(world);
  const row = world.actors.rowOf(event.subject);
  const lost = -Number(event.data['given']);
  if (row < 0 || lost <= 0) return;
  const { pool } = list[world.actors.cells.type[row]];
  if (pool < 0 || world.rules.chapters.get('attributes')!.ids[pool] !== event.data['attribute']) return;
  if (!world.lookThrough(harm.count)) return;
  const at = harmRow(world, harm, event.subject, event.source);
  harm.cells.amount[at] += lost;
  harm.cells.tick[at] = world.tick;
  harm.cells.cause[at] = event.serial;
}

/** The row of what one did to another: that which there is, or one that is too old to count any more, or a new one. */
function harmRow(world: World, harm: TableOf<typeof harmTable>, of: number, who: number): number {
  const { actor, by, tick } = harm.cells;
  const oldest = world.tick - HELP_WINDOW * world.rules.tickRate;
  let free = -1;
  for (let row = 0; row < harm.high; row++) {
    if (harm.live[row] === 0) continue;
    if (actor[row] === of && by[row] === who) return row;
    if (free < 0 && tick[row] < oldest) free = row;
  }
  const cells = { actor: of, by: who, amount: 0 };
  if (free < 0) return harm.insert(cells);
  harm.write(free, cells);
  return free;
}

interface Harm {
  readonly by: number;
  readonly cause: number;
  readonly row: number;
}

/** Who hurt an actor within the window, the last one first. */
function harmTo(world: World, of: number): readonly Harm[] {
  const { harm } = lives.in(world);
  const { by, tick, cause } = harm.cells;
  const oldest = world.tick - HELP_WINDOW * world.rules.tickRate;
  const recent = harm.rowsOf(of).filter((row) => tick[row] >= oldest);
  return recent.map((row): Harm => ({ by: by[row], cause: cause[row], row })).sort((a, b) => b.cause - a.cause);
}

/** What each of those did who hurt an actor within the window, in table order. */
export function harmShares(world: World, of: number): readonly { readonly by: number; readonly amount: number }[] {
  const { harm } = lives.in(world);
  const amount = harm.cells.amount;
  return harmTo(world, of)
    .filter(({ by }) => world.actors.rowOf(by) >= 0)
    .map(({ by, row }) => ({ by, amount: amount[row] }))
    .sort((a, b) => world.actors.rowOf(a.by) - world.actors.rowOf(b.by));
}

/** Those who had a part in an actor's fall without having done it. */
export function helpersOf(world: World, actor: number, did: number): readonly number[] {
  return harmTo(world, actor)
    .map(({ by }) => by)
    .filter((by) => by !== did && world.actors.rowOf(by) >= 0)
    .sort((a, b) => world.actors.rowOf(a) - world.actors.rowOf(b));
}

/** Fells everybody whose life is at its bottom, or has been since the last time: what refilled it meanwhile does not save. */
export function fellEmpty(world: World): void {
  const { list, table, mortal } = lives.in(world);
  const type = world.actors.cells.type;
  const stats = attributes.in(world);
  const fallen: number[] = [];
  for (const row of mortal.in(world)) {
    if (isDown(world, row)) continue;
    const { pool } = list[type[row]];
    const actor = world.actors.handle(row);
    if (poolsRest(world, row) || stats.cells[pool].value.data[row] <= lowOf(world, stats.compiled.list[pool], actor)) fallen.push(actor);
  }
  for (const actor of world.turns.sort(fallen, (one) => one)) {
    const [last] = harmTo(world, actor);
    const row = world.actors.rowOf(actor);
    // What follows from another's fall may have taken this one away.
    if (row < 0) continue;
    const emptied = poolsRest(world, row) ? table.cells.emptied[row] : 0;
    restPools(world, actor, false);
    world.since(emptied || (last?.cause ?? 0), () => defeat(world, actor, last?.by ?? 0));
  }
}

/** Fells an actor: it is down, nothing is on it any more, and what follows from its fall follows. */
export function defeat(world: World, actor: number, by: number): void {
  const row = world.actors.rowOf(actor);
  if (row < 0 || isDown(world, row)) return;
  const { list, table } = lives.in(world);
  const life = list[world.actors.cells.type[row]];
  if (!enterState(world, actor, states.in(world).down)) return;
  headFor(world, actor, 0, 0);
  endEffectsOf(world, actor, 'ownerGone');
  table.cells.falls[row]++;
  table.cells.returns[row] = life.after === 0 ? 0 : world.tick + life.after;
  const helpers = helpersOf(world, actor, by).length;
  world.follow(events.actorDefeated, { subject: actor, source: by, target: by }, { type: typeOf(world, row).id, helpers }, () =>
    life.onDefeat?.(world, { owner: actor, source: by, target: actor }),
  );
  // Whoever a spawner made does not come back by itself: its spawner makes another.
  if (life.goes || table.cells.made[row] > 0) removeActor(world, actor);
}

export function returnAll(world: World): void {
  const { table } = lives.in(world);
  const returns = table.cells.returns;
  for (let row = 0; row < table.high; row++)
    if (returns[row] !== 0 && returns[row] <= world.tick && table.live[row] === 1) comeBack(world, world.actors.handle(row));
}

/** Brings one that is down back: where it belongs, with what it begins with. */
export function comeBack(world: World, actor: number): void {
  const row = world.actors.rowOf(actor);
  if (row < 0 || !isDown(world, row)) return;
  const { list, table, harm } = lives.in(world);
  const life = list[world.actors.cells.type[row]];
  table.cells.returns[row] = 0;
  for (const at of harm.rowsOf(actor)) harm.remove(at);
  restart(world, row);
  if (life.atStart) {
    const { x, y } = homeOf(world, row);
    placeActor(world, row, x, y);
  }
  leaveState(world, actor, states.in(world).down);
  world.follow(
    events.actorReturned,
    { subject: actor, source: actor },
    { type: actors.in(world).types[world.actors.cells.type[row]].id },
    () => life.onSpawn?.(world, World.alone(actor)),
  );
}
