import { z } from 'zod';
import { actionList, type Then } from '../../ruleset/registry.js';
import { defineConcept } from '../../world/concept.js';
import { events } from './events.js';
import { trade } from './state.js';
import { exchange, part, type PartJson } from './system.js';
import { compileParts } from './compile.js';
import { raised } from '../attributes/consequences.js';
import { findings } from './findings.js';
import { inForm } from '../../ruleset/marks.js';

export { trade } from './state.js';
export { type Part, part, type PartJson, type CompiledPart, type ExchangeRefusal, exchangeRefusal, exchange } from './system.js';
export { compileParts } from './compile.js';

const parts = (says: string) => inForm('parts', z.array(part(['source', 'target'], says)).max(12, 'At most 12 different things.'));

/** Trade: paying and receiving as one step that is done whole or not at all. */
export const tradeConcept = defineConcept(trade, {
  findings,
  alsoCalled: { names: { exchange: ['trade'], swap: ['trade'] } },
  events,
  actions: {
    trade: {
      label: 'pay and receive, or neither',
      sentence: 'have {to} pay {pays}, and receive {gets}, or neither: {then} otherwise: {else}',
      causes: () => [{ event: 'traded' }, { event: 'tradeRefused' }],
      consequences: ({ gets }) => ((gets as readonly PartJson[] | undefined) ?? []).map(({ attribute }) => raised(attribute)),
      args: {
        pays: parts('pays {value}').optional(),
        gets: parts('gets {value}').optional(),
        then: actionList().optional(),
        else: actionList().optional(),
      },
      compile: (args, context, path) => {
        const [pays, gets] = ['pays', 'gets'].map((side) => compileParts(context, (args[side] ?? []) as PartJson[], [...path, side]));
        // What follows from it is for whom traded, wherever it stands.
        const list = (name: 'then' | 'else') => context.then((args[name] ?? []) as Then, [...path, name], undefined, 'self');
        const [yes, no] = [list('then'), list('else')];
        return (world, actor, parties) => {
          const now = (side: typeof pays) =>
            side.map((one) => ({ attribute: one.attribute, amount: one.amount.run(world, { ...parties, owner: actor }) }));
          const about = { subject: actor, source: parties.source, target: parties.target };
          const short = exchange(world, actor, now(pays), now(gets), world.nameOf(parties.target) || 'A deal', parties.target || actor);
          if (short) world.follow(events.tradeRefused, about, { ...short }, () => no(world, { ...parties, owner: actor }));
          else world.follow(events.traded, about, {}, () => yes(world, { ...parties, owner: actor }));
        };
      },
    },
  },
});
