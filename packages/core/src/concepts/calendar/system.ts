import type { World } from '../../world/world.js';
import { calendarTable } from './tables.js';
import { events } from './events.js';

/** Seconds of a day. Days turn at midnight UTC. */
export const DAY = 86_400;

/** Seconds within which two clocks agree. */
export const AGREES = 5;

/** The one row of the table, made where a world from before has none. */
export function rowOf(world: World): number {
  const table = calendarTable.in(world);
  return table.count === 0 ? table.insert({}) : 0;
}

export function setClock(world: World, now: number): void {
  const row = rowOf(world);
  const { cells } = calendarTable.in(world);
  const by = now + cells.ahead[row] - serverNow(world);
  const before = isKnown(world);
  if (before && by > -AGREES && by < AGREES) return;
  cells.now[row] = now;
  cells.at[row] = world.tick;
  if (before && by < 0) world.emit(events.clockSetBack, {}, { seconds: -by });
}

/** Whether anybody has said what time it is. */
export function isKnown(world: World): boolean {
  const { count, cells } = calendarTable.in(world);
  return count > 0 && cells.now[0] > 0;
}

/** The time on the server, in seconds since 1970. */
export function serverNow(world: World): number {
  const { count, cells } = calendarTable.in(world);
  if (count === 0) return Math.floor(world.tick / world.rules.tickRate);
  return Math.floor(cells.now[0] + cells.ahead[0] + (world.tick - cells.at[0]) / world.rules.tickRate);
}
