import { defineTable } from '../../world/define-table.js';

export const pricesTable = defineTable({
  name: 'prices',
  columns: {
    market: { kind: 'entry', chapter: 'markets', see: 'rules' },
    good: { kind: 'entry', chapter: 'attributes', see: 'rules' },
    price: { kind: 'number', decimals: 2, see: 'rules' },
    before: { kind: 'number', decimals: 2, see: 'rules' },
  },
});
