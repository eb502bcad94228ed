import type { CompileContext } from '../../ruleset/context.js';
import type { Path } from '../../ruleset/problem.js';
import { type InteractionEntry } from './schema.js';
import { type Interaction } from './state.js';
import { compileNeeds } from './system.js';

export function compileOne(
  context: CompileContext,
  entry: InteractionEntry,
  own: Partial<InteractionEntry>,
  at: Path,
  placed: Path,
): Interaction {
  const all = { ...entry, ...own };
  // What is not said anew keeps its place, and with it its luck.
  const path = (field: keyof InteractionEntry) => [...(field in own ? placed : at), field];
  return {
    id: entry.id,
    prompt: all.prompt,
    rule: context.ruleAt(at),
    reach: all.reach,
    sight: all.sight,
    who: all.who === undefined ? undefined : context.condition(all.who, ['target']),
    needs: compileNeeds(context, all.needs),
    price: all.price && {
      attribute: context.index('attributes', all.price.attribute),
      amount: context.amount(all.price.amount, [...path('price'), 'amount'], ['target']),
      say: all.price.say,
    },
    busy: all.busy === undefined ? 0 : Math.max(1, context.ticks(all.busy)),
    oneAtATime: all.serves === 'one',
    then: context.then(all.then, path('then')),
    onBreak: all.onBreak && context.then(all.onBreak, path('onBreak')),
    refund: all.refund ?? 0,
    refundUntil: all.refundUntil === undefined ? Infinity : context.ticks(all.refundUntil),
    remembers: all.remembers && {
      all: all.remembers.whom === 'all',
      ticks: all.remembers.for === undefined ? 0 : context.ticks(all.remembers.for),
      say: all.remembers.say,
    },
    purpose: context.purpose(at),
  };
}
