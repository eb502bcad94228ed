import { mention, reference } from '../../ruleset/fields.js';
import { defineConcept } from '../../world/concept.js';
import { findings } from './findings.js';
import { schema, type StatusEntry } from './schema.js';
import { statusesTable } from './tables.js';
import { statuses } from './state.js';
import { changeStatus, hasStatus } from './system.js';
import { events } from './events.js';
import { exactly } from '../../formula/index.js';

export { statuses } from './state.js';
export type { StatusEntry } from './schema.js';
export { hasStatus, changeStatus } from './system.js';

/** Statuses: named yes/no states. Each counts its grants, so that of two grants one may end and the status stays. */
export const statusesConcept = defineConcept(statuses, {
  alsoCalled: { names: { hasStatus: ['has'] } },
  sections: {
    statuses: {
      kind: 'chapter',
      title: 'Statuses',
      entry: schema,
      unused: 'nothing grants it and nothing asks for it. Have an effect grant it, or delete it.',
    },
  },
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
        noun: 'status',
        between: (_rules, _id, comesAbout) => (comesAbout ? { low: 0, high: 1 } : exactly(0)),
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
      consequences: ({ status }) => [{ chapter: 'statuses', id: String(status) }],
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
      args: { status: mention('statuses') },
      compile: (args, context) => {
        const status = context.index('statuses', String(args['status']));
        return (world, actor) => changeStatus(world, actor, status, -1);
      },
    },
  },
  display: (entries) => entries.filter((entry) => entry.see !== 'server').map(({ id, label }) => ({ id, label })),
});
