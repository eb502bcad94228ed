import type { statesTable } from './tables.js';
import type { TableOf } from '../../world/define-table.js';
import { World } from '../../world/world.js';
import { hasStatus } from '../statuses/index.js';
import type { GameEvent } from '../../world/events.js';
import type { CompiledStates } from './compile.js';
import { states } from './state.js';
import { events, type Transition } from './events.js';

/** The states' tables on a world. */
export interface States extends CompiledStates {
  readonly table: TableOf<typeof statesTable>;
  readonly state: Int32Array | Float64Array;
}

interface Entering {
  /** Ticks after which it ends by itself; 0 for never. */
  readonly ticks?: number;
  /** Whether the actor may move although the state does not say so. */
  readonly move?: boolean;
}

/** The position of the state that an actor's row is in. */
export function stateOf(world: World, row: number): number {
  return states.in(world).table.cells.state[row];
}

/** Whether an actor can do nothing until it comes back. */
export function isDown(world: World, row: number): boolean {
  return stateOf(world, row) === states.in(world).down;
}

/** Lets an actor move although its state does not say so: what it is doing does. */
export function letMove(world: World, row: number): void {
  states.in(world).table.cells.free[row] = 1;
}

/** Whether an actor's state lets it begin an ability. */
export function mayUse(world: World, row: number): boolean {
  return states.in(world).list[stateOf(world, row)]?.mayUse ?? false;
}

/** Whether one state may take the place of another that has not ended. */
export function mayFollowState({ list }: CompiledStates, from: number, to: number): boolean {
  return from === to || ((list[from]?.into?.includes(to) ?? true) && (list[to].from?.includes(from) ?? true));
}

/**
 * Puts an actor into a state, if the one that it is in may be left for it.
 * @returns whether it is in it now
 */
export function enterState(world: World, actor: number, to: number, how: Transition = 'began', entering: Entering = {}): boolean {
  const row = world.actors.rowOf(actor);
  if (row < 0) return false;
  const from = stateOf(world, row);
  if (!mayFollowState(states.in(world), from, to)) return false;
  put(world, row, to, how, entering);
  return true;
}

/** Ends a state that an actor is in: what comes next is what a status of its holds it in, or idle. Nothing where it is in another. */
export function leaveState(world: World, actor: number, from: number, how: Transition = 'ended'): void {
  const row = world.actors.rowOf(actor);
  if (row >= 0 && stateOf(world, row) === from) put(world, row, restingState(world, actor, from), how, {});
}

/** The state that an actor is in when nothing else is said. */
function restingState(world: World, actor: number, besides: number): number {
  const { list, idle } = states.in(world);
  const held = list.findIndex(({ status }, i) => i !== besides && status >= 0 && hasStatus(world, actor, status));
  return held >= 0 ? held : idle;
}

function put(world: World, row: number, to: number, how: Transition, { ticks, move = false }: Entering): void {
  const { table, list } = states.in(world);
  const actor = world.actors.handle(row);
  const from = stateOf(world, row);
  const { lasts, mayMove } = list[to];
  const own = lasts ? Math.max(1, Math.ceil(lasts.run(world, World.alone(actor)) * world.rules.tickRate - 1e-9)) : 0;
  const length = ticks ?? own;
  table.cells.state[row] = to;
  table.cells.since[row] = world.tick;
  table.cells.until[row] = length === 0 ? 0 : world.tick + length;
  table.cells.free[row] = mayMove || move ? 1 : 0;
  if (from !== to) world.emit(events.stateChanged, { subject: actor }, { from: list[from]?.id ?? '', to: list[to].id, how });
}

/** Tells the states whether a body moved of its own will in this tick: between idle and moving there is nothing else. */
export function noteMoving(world: World, tables: States, row: number, moved: boolean): void {
  const state = tables.state[row];
  if (moved ? state === tables.idle : state === tables.moving)
    put(world, row, moved ? tables.moving : tables.idle, moved ? 'moved' : 'stopped', {});
}

/** Ends what has lasted its time. */
export function endTimes(world: World): void {
  const { table } = states.in(world);
  const until = table.cells.until;
  for (let row = 0; row < table.high; row++)
    if (until[row] !== 0 && until[row] <= world.tick && table.live[row] === 1)
      leaveState(world, world.actors.handle(row), stateOf(world, row));
}

/** Statuses lead into the states that go with them and out again; events end the states that wait for them. */
export function leaveStatesOnEvent(world: World, event: GameEvent): void {
  const tables = states.in(world);
  const waiting = tables.endedBy.get(event.name);
  if (waiting) endWaiting(world, tables, waiting, event);
  if (event.name !== 'statusGained' && event.name !== 'statusLost') return;
  const status = world.rules.chapters.get('statuses')!.ids.indexOf(String(event.data['status']));
  if (!tables.held.has(status)) return;
  tables.list.forEach((state, i) => {
    if (state.status !== status) return;
    if (event.name === 'statusGained') enterState(world, event.subject, i, 'status');
    else leaveState(world, event.subject, i, 'status');
  });
}

function endWaiting(world: World, tables: States, waiting: readonly number[], event: GameEvent): void {
  for (let row = 0; row < tables.table.high; row++) {
    if (tables.table.live[row] === 0 || !waiting.includes(tables.state[row])) continue;
    const actor = world.actors.handle(row);
    if (tables.list[tables.state[row]].ends!.matches(world, event, actor)) leaveState(world, actor, tables.state[row], 'event');
  }
}

/** Under edited rules: who was in a state that has gone is in what holds it now, and what each allows is asked anew. */
export function adoptStates(world: World): void {
  const { table, list } = states.in(world);
  const { state, free, until } = table.cells;
  for (let row = 0; row < table.high; row++) {
    if (table.live[row] === 0) continue;
    if (state[row] < 0) {
      state[row] = restingState(world, world.actors.handle(row), -1);
      until[row] = 0;
    }
    free[row] = list[state[row]].mayMove ? 1 : 0;
  }
}
