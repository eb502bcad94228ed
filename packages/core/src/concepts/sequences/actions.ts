import { z } from 'zod';
import type { ActionSpec } from '../../world/concept.js';
import { type Branch, MOST_BRANCHES, PARTIES } from './system.js';
import { events, MOST_WAITING } from './events.js';
import { actionList, type Then } from '../../ruleset/registry.js';
import { amount, condition, duration } from '../../ruleset/fields.js';
import { sequences } from './state.js';

export const actions: Readonly<Record<string, ActionSpec>> = {
  wait: {
    label: 'wait',
    sentence: 'wait {for}',
    onlyInLists: true,
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
    onlyInLists: true,
    args: { if: condition(PARTIES), then: actionList(), else: actionList().optional() },
    waysPast: (args) => (args['else'] === undefined ? ['else'] : []),
    steer: (args, context, path, rest) => {
      const test = context.condition(String(args['if']), PARTIES);
      const yes = context.then(args['then'] as Then, [...path, 'then'], rest);
      const no = args['else'] === undefined ? rest : context.then(args['else'] as Then, [...path, 'else'], rest);
      const past = args['else'] === undefined ? `${context.placeOf(path)}/else` : undefined;
      return (world, parties) => {
        const holds = test(world, parties) !== 0;
        if (!holds && past !== undefined) world.ran?.places.add(past);
        (holds ? yes : no)(world, parties);
      };
    },
  },
  pick: {
    label: 'pick one by chance',
    sentence: 'pick one: {among}',
    onlyInLists: true,
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
