import { duration, mention, reference } from '../../ruleset/fields.js';
import { defineConcept } from '../../world/concept.js';
import { compileStates } from './compile.js';
import { invariants } from './invariants.js';
import { events } from './events.js';
import { findings } from './findings.js';
import { GIVEN } from './given.js';
import { schema } from './schema.js';
import { adoptStates, endTimes, enterState, leaveState, stateOf, leaveStatesOnEvent } from './system.js';
import { statesTable } from './tables.js';
import { states } from './state.js';

export { states } from './state.js';
export { ALLOWED, type StateEntry } from './schema.js';
export { enterState, isDown, leaveState, letMove, mayFollowState, mayUse, noteMoving, stateOf, type States } from './system.js';

/** Action states: what an actor is doing, one at a time, what it may do meanwhile, and what may come next. */
export const statesConcept = defineConcept(states, {
  sections: { states: { kind: 'chapter', title: 'States', entry: schema, given: GIVEN } },
  vocabulary: (ids) => ({
    functions: [
      {
        name: 'doing',
        chapter: 'states',
        ids: ids('states'),
        amounts: 0,
        yields: 'condition',
        read: (index) => (world, actor) => {
          const row = world.actors.rowOf(actor);
          return row >= 0 && stateOf(world, row) === index ? 1 : 0;
        },
      },
    ],
  }),
  compileInParts: compileStates,
  tables: ({ entries }) => {
    const see = { column: 'state', of: entries.map((entry) => entry.see) };
    return [statesTable.under({ see })];
  },
  attach: (world, compiled) => {
    const table = statesTable.in(world);
    return {
      ...compiled,
      table,
      get state() {
        return table.cells.state;
      },
    };
  },
  events,
  invariants,
  actions: {
    enter: {
      label: 'put into a state',
      sentence: 'put {to} into {state} for {for}',
      causes: ({ state }) => [{ event: 'stateChanged', fields: { to: state } }],
      args: { state: reference('states'), for: duration().optional() },
      compile: (args, context) => {
        const state = context.index('states', String(args['state']));
        const ticks = args['for'] === undefined ? undefined : context.ticks(String(args['for']));
        return (world, actor) => void enterState(world, actor, state, 'began', { ...(ticks !== undefined && { ticks }) });
      },
    },
    leave: {
      label: 'end a state',
      sentence: 'end {state} of {to}',
      causes: ({ state }) => [{ event: 'stateChanged', fields: { from: state } }],
      args: { state: mention('states') },
      compile: (args, context) => {
        const state = context.index('states', String(args['state']));
        return (world, actor) => leaveState(world, actor, state);
      },
    },
  },
  findings,
  onAnnounce: leaveStatesOnEvent,
  systems: { timers: endTimes },
  lifecycle: {
    actorSpawned: (world, row) => {
      const { table, idle, list } = states.in(world);
      table.cells.state[row] = idle;
      table.cells.since[row] = world.tick;
      table.cells.free[row] = list[idle].mayMove ? 1 : 0;
    },
    rulesAdopted: adoptStates,
  },
  display: ({ entries }) => entries.filter((entry) => entry.see !== 'server').map(({ id, label, allows }) => ({ id, label, allows })),
});
