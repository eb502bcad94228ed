import { defineTable } from '../../world/define-table.js';

/** What can stand against an offer, by the number in its cell. */
export const AGAINST = ['', 'tooPoor', 'noRoom', 'soldOut', 'topTier', 'atMost', 'needs', 'ruined', 'over'] as const;

export const stallsTable = defineTable({
  name: 'stalls',
  owner: 'actor',
  columns: {
    actor: { kind: 'actor', see: 'owner' },
    shop: { kind: 'entry', chapter: 'shops', optional: true, see: 'owner' },
    market: { kind: 'entry', chapter: 'markets', optional: true, see: 'owner' },
  },
});

export const waresTable = defineTable({
  name: 'wares',
  owner: 'actor',
  columns: {
    actor: { kind: 'actor', see: 'owner' },
    offer: { kind: 'entry', chapter: 'offers', see: 'owner' },
    held: { kind: 'int', see: 'owner' },
    /** How many are left for everybody; -1 for as many as like. */
    left: { kind: 'int', see: 'owner' },
    against: { kind: 'int', words: AGAINST, see: 'owner' },
    says: { kind: 'text', see: 'owner' },
    upkeep: { kind: 'number', decimals: 2, see: 'rules' },
  },
});

/** What an offer takes (below nothing) and gives. */
export const warePricesTable = defineTable({
  name: 'warePrices',
  owner: 'actor',
  columns: {
    actor: { kind: 'actor', see: 'rules' },
    offer: { kind: 'entry', chapter: 'offers', see: 'rules' },
    attribute: { kind: 'entry', chapter: 'attributes', see: 'rules' },
    amount: { kind: 'number', decimals: 2, see: 'rules' },
  },
});
