import type { Rules } from '../../ruleset/rules.js';
import { z } from 'zod';
import { reference } from '../../ruleset/fields.js';
import { defineConcept } from '../../world/concept.js';
import { closeBy } from '../containers/index.js';
import { endVisit, interactions, visitBy } from '../interactions/index.js';
import { offersTable } from './tables.js';
import { offers } from './state.js';
import { ask, offerAll } from './system.js';

export { offers } from './state.js';

const known = new WeakMap<Rules, number>();

/** From how far the farthest thing under these rules offers something. */
function farthestUnder(rules: Rules): number {
  let farthest = known.get(rules);
  if (farthest === undefined) {
    const containers = rules.document['containers'] as readonly { reach: number }[];
    const placed = JSON.stringify((rules.document['arena'] as { placed: unknown }).placed);
    const overrides = [...placed.matchAll(/"reach":(\d+(?:\.\d+)?)/g)].map(([, value]) => Number(value));
    const reaches = [...interactions.of(rules).list, ...containers].map((one) => one.reach);
    farthest = [...reaches, ...overrides].reduce((most, reach) => Math.max(most, reach), 0);
    known.set(rules, farthest);
  }
  return farthest;
}

/** Offers: what the things around a player offer to them, and the one key with which they are asked for it. */
export const offersConcept = defineConcept(offers, {
  tables: () => [offersTable],
  attach: (world) => ({
    things: { version: -1, rows: [] },
    offers: offersTable.in(world),
    farthest: farthestUnder(world.rules),
  }),
  inputs: {
    interact: {
      label: 'interact',
      sentence: 'interacts, choosing {what}, with {with}',
      args: {
        /** The row of the actor that it is asked of; the nearest that offers something where nothing is said. */
        with: z.int('An actor is named by its row.').min(0).optional(),
        /** The id of the interaction; the first that is offered where nothing is said. */
        what: reference('interactions').optional(),
      },
      examples: (rules) => [{}, ...(rules.chapters.get('interactions')?.ids ?? []).map((what) => ({ what }))],
      traced: true,
      run: ask,
    },
    leave: {
      label: 'leave what is open',
      sentence: 'leaves what is open',
      args: {},
      traced: true,
      run: (world, visitor) => {
        const visit = visitBy(world, visitor);
        if (visit >= 0) endVisit(world, visit, 'left');
        closeBy(world, visitor);
      },
    },
  },
  systems: { overlaps: offerAll },
});
