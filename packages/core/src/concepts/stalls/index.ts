import { stallsTable, warePricesTable, waresTable } from './tables.js';
import { defineConcept } from '../../world/concept.js';
import { ofMoney } from '../ledger/index.js';
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
  attach: (world) => ({ near: stallsTable.in(world), wares: waresTable.in(world), prices: warePricesTable.in(world) }),
  systems: { removal: showAll },
});
