import { z } from 'zod';
import { duration, toMilliseconds } from '../../ruleset/fields.js';
import { defineConcept } from '../../world/concept.js';
import { amount } from '../../world/event-fields.js';
import { defineEvents } from '../../world/events.js';
import type { World } from '../../world/world.js';
import { calendarTable } from './tables.js';
import { calendar } from './state.js';

export { calendar } from './state.js';

/** Seconds of a day. Days turn at midnight UTC. */
export const DAY = 86_400;

/** Seconds within which two clocks agree. */
const AGREES = 5;

const clock = z.number().min(0, 'Seconds since 1970 are expected.').max(1e11, 'Seconds since 1970 are expected.');

const events = defineEvents({
  clockSetBack: {
    label: 'the server’s clock is set back',
    when: 'It is earlier than it was, by more than clocks differ; what waits by the clock has to wait no longer than it would have had to.',
    arises: 'core',
    fields: { seconds: amount() },
    see: 'server',
    sentence: (e) => `the server’s clock was set back by ${e.data['seconds']} s`,
  },
});

/**
 * The calendar: what time it is on the server, for what comes back another day. A world has no clock of its own: the time
 * comes in as a command, is part of the tape, and runs on with the ticks in between.
 */
export const calendarConcept = defineConcept(calendar, {
  tables: () => [calendarTable],
  events,
  commands: { clock: { args: { now: clock }, run: (world, { now }) => setClock(world, Number(now)) } },
  actions: {
    passTime: {
      label: 'let time pass',
      sentence: 'put the server’s time forward by {time}',
      args: { time: duration() },
      steer: (args, _context, _path, rest) => {
        const seconds = toMilliseconds(String(args['time'])) / 1000;
        return (world, parties) => {
          const row = rowOf(world);
          calendarTable.in(world).cells.ahead[row] += seconds;
          rest(world, parties);
        };
      },
    },
  },
});

/** The one row of the table, made where a world from before has none. */
function rowOf(world: World): number {
  const table = calendarTable.in(world);
  return table.count === 0 ? table.insert({}) : 0;
}

function setClock(world: World, now: number): void {
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
