import { z } from 'zod';
import { duration, toMilliseconds } from '../../ruleset/fields.js';
import { defineConcept } from '../../world/concept.js';
import { calendarTable } from './tables.js';
import { calendar } from './state.js';
import { rowOf, setClock } from './system.js';
import { events } from './events.js';
import { described } from '../../ruleset/described.js';

export { calendar } from './state.js';
export { DAY, isKnown, serverNow } from './system.js';

const clock = z.number().min(0, 'Seconds since 1970 are expected.').max(1e11, 'Seconds since 1970 are expected.');

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
      args: { time: described(duration(), { begins: '86400s' }) },
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
