import { z } from 'zod';
import type { AmountSource } from '../../ruleset/fields.js';
import { amount, condition, duration } from '../../ruleset/fields.js';
import { actionList, type Then } from '../../ruleset/registry.js';
import { NO_RULE } from '../../world/budget.js';
import { type ActionSpec, defineConcept } from '../../world/concept.js';
import { text } from '../../world/event-fields.js';
import { defineEvents } from '../../world/events.js';
import type { World } from '../../world/world.js';
import { waitsTable } from './tables.js';
import { sequences } from './state.js';

export { sequences } from './state.js';

const PARTIES = ['source', 'target'] as const;
const MOST_BRANCHES = 20;
/** At most so many lists of actions wait in a world. */
export const MOST_WAITING = 10_000;

const events = defineEvents({
  listDropped: {
    label: 'a list of actions is dropped',
    when: 'A list was to wait, and as many wait already as can; what was still to come in it is left undone.',
    arises: 'core',
    fields: { rule: text() },
    see: 'server',
    refusal: true,
    sentence: (e, speak) => {
      const [chapter, id] = String(e.data['rule']).split('/');
      return `${MOST_WAITING} lists of actions wait already: ${id === undefined ? 'one' : `one of ${speak.label(chapter, id)}`} is dropped`;
    },
  },
});

interface Branch {
  readonly weight: AmountSource;
  readonly then: Then;
}

const actions: Readonly<Record<string, ActionSpec>> = {
  wait: {
    label: 'wait',
    sentence: 'wait {for}',
    args: { for: duration() },
    steer: (args, context, path, rest) => {
      const ticks = context.ticks(String(args['for']));
      const piece = context.keep(path, rest);
      const rule = context.ruleAt(path);
      return (world, parties) => {
        const { table, resumeTimer } = sequences.in(world);
        if (table.count >= MOST_WAITING)
          return world.emit(events.listDropped, { subject: parties.owner }, { rule: world.rules.acting[rule] ?? '' });
        const row = table.add();
        const { owner, source, target, scope = 0, luck = 0, repeated = false } = parties;
        const cells: Record<string, number> = { owner, source, target, piece, scope, luck, repeated: Number(repeated), cause: world.cause };
        table.write(row, cells);
        world.setTimer(resumeTimer, ticks, owner, table.handle(row));
      };
    },
  },
  when: {
    label: 'only when',
    sentence: 'when {if}: {then} otherwise: {else}',
    args: { if: condition(PARTIES), then: actionList(), else: actionList().optional() },
    steer: (args, context, path, rest) => {
      const test = context.condition(String(args['if']), PARTIES);
      const yes = context.then(args['then'] as Then, [...path, 'then'], rest);
      const no = args['else'] === undefined ? rest : context.then(args['else'] as Then, [...path, 'else'], rest);
      return (world, parties) => (test(world, parties) !== 0 ? yes : no)(world, parties);
    },
  },
  pick: {
    label: 'pick one by chance',
    sentence: 'pick one: {among}',
    args: {
      among: z
        .array(z.strictObject({ weight: amount(PARTIES), then: actionList() }))
        .min(1, 'There is nothing to pick from.')
        .max(MOST_BRANCHES, `At most ${MOST_BRANCHES} to pick from.`),
    },
    steer: (args, context, path, rest) => {
      const branches = (args['among'] as readonly Branch[]).map(({ weight, then }, i) => ({
        weight: context.amount(weight, [...path, 'among', i, 'weight'], PARTIES),
        then: context.then(then, [...path, 'among', i, 'then'], rest),
      }));
      const purpose = context.purpose(path);
      return (world, parties) => {
        const weights = branches.map(({ weight }) => Math.max(0, weight.run(world, parties)));
        const sum = weights.reduce((a, b) => a + b, 0);
        // Rolled whatever the weights are: whether there is something to pick changes nobody's luck.
        let left = world.rollFor(purpose, parties) * sum;
        const picked = weights.findIndex((weight) => (left -= weight) < 0);
        (branches[picked]?.then ?? rest)(world, parties);
      };
    },
  },
};

/** Sequences: what steers a list of actions. A list that waits goes on later, unless whom it belongs to has gone by then. */
export const sequencesConcept = defineConcept(sequences, {
  tables: () => [waitsTable],
  attach: (world) => ({ table: waitsTable.in(world), resumeTimer: world.rules.registry.timer('sequences.resume') }),
  actions,
  events,
  timers: { resume: (world, _actor, handle) => resume(world, handle) },
});

function resume(world: World, handle: number): void {
  const { table, resumeTimer } = sequences.in(world);
  const row = table.rowOf(handle);
  if (row < 0) return;
  const { cells } = table;
  const [owner, source, target, scope] = [cells.owner[row], cells.source[row], cells.target[row], cells.scope[row]];
  const [piece, luck, repeated, cause] = [cells.piece[row], cells.luck[row], cells.repeated[row], cells.cause[row]];
  // Where the tick has no steps left it goes on at the next one.
  if (!world.goesOn(NO_RULE)) return void world.setTimer(resumeTimer, 1, owner, handle);
  table.remove(row);
  // An edit may have taken out what was still to be done.
  const rest = world.rules.pieces.get(piece);
  if (rest)
    world.since(cause, () =>
      rest(world, { owner, source, target, scope, ...(luck !== 0 && { luck }), ...(repeated !== 0 && { repeated: true }) }),
    );
}

/** Stops every list that waits and belongs to something that has ended. */
export function endWaits(world: World, scope: number): void {
  const { table } = sequences.in(world);
  const scopes = table.cells.scope;
  for (const row of table.rows()) if (scopes[row] === scope) table.remove(row);
}

/** What lists that wait belong to, each once; those that stand for themselves are left out. */
export function scopesWaiting(world: World): readonly number[] {
  const { table } = sequences.in(world);
  const scopes = table.rows().map((row) => table.cells.scope[row]);
  return [...new Set(scopes.filter((scope) => scope !== 0))];
}

/** Whether a list that belongs to something still waits. */
export function isWaiting(world: World, scope: number): boolean {
  const { table } = sequences.in(world);
  const scopes = table.cells.scope;
  for (const row of table.rows()) if (scopes[row] === scope) return true;
  return false;
}
