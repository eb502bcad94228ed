import { defineConcept } from '../../world/concept.js';
import { accountsTable, ledgerTable } from './tables.js';
import { economySchema } from './schema.js';
import { ledger } from './state.js';
import { compileLedger } from './compile.js';
import { noteLine, ofMoney, openAccounts, sourceOf } from './system.js';

export { ledger } from './state.js';
export type { EconomyRules } from './schema.js';
export { ofMoney, moneyOf, isPlayerRow, noteLine, type Line, linesOf, forgetLines, purseOf, closedFor } from './system.js';

/** The ledger: what comes in and goes out of each player's purse today, by where it came from. */
export const ledgerConcept = defineConcept(ledger, {
  sections: { economy: { kind: 'value', title: 'Economy', schema: economySchema } },
  compile: compileLedger,
  tables: ({ players, economy }, rules) => {
    const see = ofMoney(rules);
    const present = { column: 'type', of: economy ? players : players.map(() => false) };
    return [accountsTable.under({ see, present }), ledgerTable.under({ see })];
  },
  attach: (world, compiled) => ({ ...compiled, account: accountsTable.in(world).cells, lines: ledgerTable.in(world) }),
  // A line is written the moment the money moves: by then everything that led to it is known.
  onAnnounce: (world, event) => {
    const { economy } = ledger.of(world.rules);
    if (event.name !== 'attributeChanged' || economy?.currency !== event.data['attribute']) return;
    // Who exchanges writes the lines of it.
    const { how } = event.data;
    if (how !== 'pay' && how !== 'receive') noteLine(world, event.subject, sourceOf(world, event), Number(event.data['given']));
  },
  systems: { timers: openAccounts },
});
