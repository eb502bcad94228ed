import { defineConcept } from '../../world/concept.js';
import { type EconomyRules } from '../ledger/index.js';
import { events } from './events.js';
import { findings } from './findings.js';
import { isTold } from '../../ruleset/visible.js';
import { daysTable } from './tables.js';
import { type CompiledDays, days } from './state.js';
import { askToEnd, begin, endNow, goOn } from './system.js';

export { days } from './state.js';
export { endNow } from './system.js';

/** Days: they end after a length or when all players ask for it; what things cost is paid, statements are drawn up, prices move. */
export const daysConcept = defineConcept(days, {
  compile: (context): CompiledDays => {
    const economy = context.section<EconomyRules | undefined>('economy');
    const { day, ruin, goal } = economy ?? {};
    if (day && day.length === undefined && !day.key)
      context.problem(['economy', 'day'], 'Such a day never ends: say how long it is, or let players end it.');
    const list = (name: 'ruin' | 'goal') => {
      const actions = economy?.[name]?.then;
      return actions && context.then(actions, ['economy', name, 'then']);
    };
    return {
      economy,
      rule: context.ruleAt(['economy']),
      length: day?.length === undefined ? 0 : Math.max(1, context.ticks(day.length)),
      chance: ruin?.lastChance === undefined ? 0 : context.ticks(ruin.lastChance),
      ruin: ruin?.if === undefined ? undefined : context.condition(ruin.if),
      onRuin: list('ruin'),
      goal: goal && context.condition(goal.if),
      onGoal: list('goal'),
    };
  },
  tables: () => [daysTable],
  attach: (world, compiled) => ({ ...compiled, table: daysTable.in(world) }),
  events,
  actions: {
    endDay: {
      label: 'end the day',
      sentence: 'end the day for everybody',
      causes: () => [{ event: 'dayEnded' }, { event: 'dayBegan' }],
      args: {},
      steer: (_args, _context, _path, rest) => (world, parties) => {
        endNow(world);
        rest(world, parties);
      },
    },
  },
  inputs: { endDay: { label: 'end the day', sentence: 'ends the day', args: {}, traced: true, run: askToEnd } },
  findings,
  lifecycle: {
    worldStarted: begin,
    rulesAdopted: (world) => {
      const { economy, length, table } = days.in(world);
      if (table.count === 0) return begin(world);
      const ends = table.cells.ends;
      if (!economy || length === 0) ends[0] = 0;
      else if (ends[0] === 0 || ends[0] > world.tick + length) ends[0] = world.tick + length;
    },
  },
  systems: { thresholds: goOn },
  workbench: async () => (await import('../workbenches.js')).days,
  display: ({ economy }, rules) =>
    economy &&
    isTold(rules, 'attributes', economy.currency) && {
      currency: economy.currency,
      key: economy.day.key,
      ...(economy.ruin?.say !== undefined && { ruin: economy.ruin.say }),
      ...(economy.goal?.say !== undefined && { goal: economy.goal.say }),
    },
});
