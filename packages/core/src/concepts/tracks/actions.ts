import type { ActionSpec } from '../../world/concept.js';
import { amount, type AmountSource, finite, reference } from '../../ruleset/fields.js';
import { howShared, type Share } from './schema.js';
import { award, divide } from './award.js';
import { described } from '../../ruleset/described.js';

export const awarding: ActionSpec = {
  label: 'award experience',
  sentence: 'award {amount} {track} to {to}, shared in the crew {share}, within {within}',
  causes: ({ track }) => ['experienceGained', 'levelReached'].map((event) => ({ event, fields: { track } })),
  args: {
    track: reference('tracks'),
    amount: described(amount(['source', 'target']), { amount: 'awards {value}' }),
    /** How it is divided in the crew: equal, full, help. For the one alone where nothing is said. */
    share: howShared().optional(),
    within: finite().min(1).max(5000).optional(),
  },
  compile: (args, context, path) => {
    const index = context.index('tracks', String(args['track']));
    const by = context.amount(args['amount'] as AmountSource, [...path, 'amount'], ['source', 'target']);
    const how = args['share'] as Share['how'] | undefined;
    const within = args['within'] as number | undefined;
    const share: Share | undefined = how && { among: 'crew', how, ...(within !== undefined && { within }) };
    return (world, actor, parties) => {
      // The one whose list of actions this is may be the one who fell.
      const parts = divide(world, by.run(world, { ...parties, owner: actor }), actor, parties.owner, share);
      for (const part of parts) award(world, part.actor, index, part.amount, parties.source);
    };
  },
};
