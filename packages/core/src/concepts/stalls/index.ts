import { stallsTable, warePricesTable, waresTable } from './tables.js';
import { defineConcept } from '../../world/concept.js';
import { ofMoney } from '../ledger/index.js';
import { markets } from '../markets/index.js';
import { shops } from '../shops/index.js';
import { asTold } from '../../ruleset/visible.js';
import { stalls } from './state.js';
import { showAll } from './system.js';

export { stalls } from './state.js';
export { AGAINST } from './tables.js';

/**
 * Stalls: what the shops and markets around a player would trade with them just now. Worked out from the rest for every
 * seat, told to its player alone, and to nobody who is not near.
 */
export const stallsConcept = defineConcept(stalls, {
  tables: (_, rules) => [
    stallsTable,
    waresTable.under({ see: ofMoney(rules) }),
    warePricesTable.under({ see: { column: 'attribute', of: asTold(rules, 'attributes', 'owner') } }),
  ],
  attach: (world) => {
    const all = [...shops.of(world.rules).shops, ...markets.of(world.rules).list];
    return {
      near: stallsTable.in(world),
      wares: waresTable.in(world),
      prices: warePricesTable.in(world),
      keepers: { version: -1, rows: [] },
      farthest: all.reduce((most, { reach }) => Math.max(most, reach), 0),
      isAnywhere: all.some(({ at }) => at < 0),
    };
  },
  systems: { removal: showAll },
});
