import { defineConcept } from '../../world/concept.js';
import { waitsTable } from './tables.js';
import { sequences } from './state.js';
import { resume } from './system.js';
import { events } from './events.js';
import { findings } from './findings.js';
import { actions } from './actions.js';

export { sequences } from './state.js';
export { endWaits, scopesWaiting, isWaiting } from './system.js';
export { MOST_WAITING } from './events.js';

/** Sequences: what steers a list of actions. A list that waits goes on later, unless whom it belongs to has gone by then. */
export const sequencesConcept = defineConcept(sequences, {
  findings,
  alsoCalled: { names: { if: ['when'], random: ['pick'], choose: ['pick'], delay: ['wait'] } },
  tables: () => [waitsTable],
  attach: (world) => ({ table: waitsTable.in(world), resumeTimer: world.rules.registry.timer('sequences.resume') }),
  actions,
  events,
  timers: { resume: (world, _actor, handle) => resume(world, handle) },
});
