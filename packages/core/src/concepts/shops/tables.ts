import { defineTable } from '../../world/define-table.js';
import { columnNames, defineEntryTable } from '../../world/entry-table.js';
import type { OfferEntry } from './schema.js';

/** How often a player has bought an offer, or its tier. */
export const purchasesTable = defineEntryTable({
  name: 'purchases',
  title: 'Purchases',
  extends: 'actors',
  columns: (offer: OfferEntry) => ({
    ...columnNames(offer),
    kind: 'int',
    see: 'owner',
    saved: true,
    label: offer.tiers === undefined ? `${offer.label}, bought` : `${offer.label}, tier`,
    range: [0, offer.tiers ?? offer.atMost ?? 1_000_000],
  }),
});

/** What of an offer is sold today, where there is only so much for everybody. */
export const stocksTable = defineTable({
  name: 'stocks',
  columns: {
    offer: { kind: 'entry', chapter: 'offers', see: 'everyone' },
    sold: { kind: 'int', see: 'everyone' },
  },
});
