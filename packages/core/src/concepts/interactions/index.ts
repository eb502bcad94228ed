import { defineConcept } from '../../world/concept.js';
import { placements } from '../arena/index.js';
import { scopesTalking, stopTalking } from '../dialogues/index.js';
import { endWaits, scopesWaiting } from '../sequences/index.js';
import { events } from './events.js';
import { findings } from './findings.js';
import { type InteractionEntry, schema } from './schema.js';
import { visitsTable } from './tables.js';
import { interactions } from './state.js';
import { compileOne } from './compile.js';
import { endAll, endVisit, visitsOf } from './system.js';

export { interactions } from './state.js';
export { refusalWords, type VisitRefused } from './events.js';
export { apart, isReached, type Reach } from './reach.js';
export { type InteractionEntry, REMEMBERS, SERVES } from './schema.js';
export {
  compileNeeds,
  unmetNeed,
  interactionWith,
  interactionsOf,
  visitBy,
  priceFor,
  visitRefusal,
  beginVisit,
  endVisit,
} from './system.js';

/**
 * Interactions: walk up, press a key. What is offered within reach, what it asks first, and a visit that takes its time
 * and ends when its visitor walks off. A visit is a row: its lists of actions wait for as long as it lasts.
 */
export const interactionsConcept = defineConcept(interactions, {
  sections: {
    interactions: {
      kind: 'chapter',
      title: 'Interactions',
      entry: schema,
      unused: 'no kind of actor offers it. Give it to one, or delete it.',
      absent: 'No actor that comes into play offers it.',
    },
  },
  *compileInParts(context) {
    const entries = context.entries<InteractionEntry>('interactions');
    entries.forEach(({ price }, i) => {
      const kind = price && context.entry<{ kind: string; label: string }>('attributes', price.attribute);
      if (entries[i].refundUntil !== undefined && entries[i].refund === undefined)
        context.problem(['interactions', i, 'refundUntil'], `Nothing is given back: say which share of the price, or take the time out.`);
      if (kind?.kind === 'stat')
        context.problem(['interactions', i, 'price', 'attribute'], `${kind.label} is a stat: a price is paid from a pool or a counter.`);
    });
    const variants = placements(context, 'actor').flatMap(({ index, thing }) =>
      (thing.with?.asks ?? []).map(({ interaction, ...own }, k) => {
        const i = context.index('interactions', interaction);
        const said = Object.fromEntries(Object.entries(own).filter(([, value]) => value !== undefined));
        return [
          `${index}/${i}`,
          compileOne(context, entries[i], said, ['interactions', i], ['arena', 'placed', index, 'with', 'asks', k]),
        ] as const;
      }),
    );
    return {
      list: yield* context.each('interactions', entries, (entry, i) => compileOne(context, entry, {}, ['interactions', i], [])),
      variants: new Map(variants),
      ofType: context
        .entries<{ interactions: readonly string[] }>('actors')
        .map((type) => type.interactions.map((id) => context.index('interactions', id))),
    };
  },
  tables: () => [visitsTable],
  attach: (world, compiled) => ({ ...compiled, table: visitsTable.in(world) }),
  events,
  findings,
  lifecycle: {
    // A visit that an edit has taken out leaves nothing behind that goes on.
    rulesAdopted: (world) => {
      const { table } = interactions.in(world);
      for (const scope of [...scopesWaiting(world), ...scopesTalking(world)])
        if (table.rowOf(scope) < 0) {
          endWaits(world, scope);
          stopTalking(world, scope);
        }
    },
    actorLeaving: (world, row) => {
      const actor = world.actors.handle(row);
      for (const visit of visitsOf(world, actor)) endVisit(world, visit, 'gone');
    },
  },
  systems: { overlaps: endAll },
  workbench: async () => (await import('../workbenches.js')).interactions,
  display: ({ list }) => list.map(({ id, prompt }) => ({ id, prompt })),
});
