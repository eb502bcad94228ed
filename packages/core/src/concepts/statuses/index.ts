import { reference } from '../../ruleset/fields.js';
import { defineConcept } from '../../world/concept.js';
import { entry } from '../../world/event-fields.js';
import { defineEvents } from '../../world/events.js';
import type { World } from '../../world/world.js';
import { findings } from './findings.js';
import { schema, type StatusEntry } from './schema.js';
import { statusesTable } from './tables.js';
import { statuses } from './state.js';

export { statuses } from './state.js';
export type { StatusEntry } from './schema.js';

const events = defineEvents({
  statusGained: {
    label: 'a status begins',
    when: 'The first grant of a status is on an actor.',
    fields: { status: entry('statuses') },
    patterns: ['status'],
    see: { as: 'status' },
    sentence: (e, speak) => `${e.who} is now ${speak.label('statuses', e.data['status']).toLowerCase()}`,
  },
  statusLost: {
    label: 'a status ends',
    when: 'The last grant of a status is off an actor.',
    fields: { status: entry('statuses') },
    patterns: ['status'],
    see: { as: 'status' },
    sentence: (e, speak) => `${e.who} is no longer ${speak.label('statuses', e.data['status']).toLowerCase()}`,
  },
});

/** Statuses: named yes/no states. Each counts its grants, so that of two grants one may end and the status stays. */
export const statusesConcept = defineConcept(statuses, {
  sections: { statuses: { kind: 'chapter', title: 'Statuses', entry: schema } },
  compile: (context) => context.entries<StatusEntry>('statuses'),
  findings,
  tables: (entries) => [statusesTable.under(entries)],
  attach: (world, entries) => ({ grants: statusesTable.columnsIn(world, entries), ids: entries.map(({ id }) => id) }),
  vocabulary: (ids) => ({
    functions: [
      {
        name: 'has',
        chapter: 'statuses',
        ids: ids('statuses'),
        amounts: 0,
        yields: 'condition',
        read: (index) => (world, actor) => (hasStatus(world, actor, index) ? 1 : 0),
      },
    ],
  }),
  events,
  actions: {
    grant: {
      label: 'grant a status',
      sentence: 'grant {status} to {to}',
      causes: ({ status }) => [{ event: 'statusGained', fields: { status } }],
      args: { status: reference('statuses') },
      compile: (args, context) => {
        const status = context.index('statuses', String(args['status']));
        return (world, actor) => changeStatus(world, actor, status, 1);
      },
    },
    withdraw: {
      label: 'withdraw a status',
      sentence: 'withdraw {status} from {to}',
      causes: ({ status }) => [{ event: 'statusLost', fields: { status } }],
      args: { status: reference('statuses') },
      compile: (args, context) => {
        const status = context.index('statuses', String(args['status']));
        return (world, actor) => changeStatus(world, actor, status, -1);
      },
    },
  },
  display: (entries) => entries.filter((entry) => entry.see !== 'server').map(({ id, label }) => ({ id, label })),
});

/** Whether an actor is in a status, however many grants of it there are. */
export function hasStatus(world: World, actor: number, status: number): boolean {
  const row = world.actors.rowOf(actor);
  return row >= 0 && statuses.in(world).grants[status].data[row] > 0;
}

/** Adds a grant of a status to an actor (`by` 1) or takes one away (`by` -1; below none it stays none). */
export function changeStatus(world: World, actor: number, status: number, by: 1 | -1): void {
  const row = world.actors.rowOf(actor);
  if (row < 0) return;
  const { grants: all, ids } = statuses.in(world);
  const grants = all[status].data;
  const before = grants[row];
  world.touch(row);
  grants[row] = Math.max(0, before + by);
  if (before === 0 && by === 1) world.emit(events.statusGained, { subject: actor }, { status: ids[status] });
  if (before === 1 && by === -1) world.emit(events.statusLost, { subject: actor }, { status: ids[status] });
}
