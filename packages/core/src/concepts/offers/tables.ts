import { defineTable } from '../../world/define-table.js';

export const offersTable = defineTable({
  name: 'offers',
  owner: 'visitor',
  columns: {
    visitor: { kind: 'actor', see: 'owner' },
    thing: { kind: 'actor', see: 'owner' },
    interaction: { kind: 'entry', chapter: 'interactions', optional: true, see: 'owner' },
    prompt: { kind: 'text', see: 'owner' },
    price: { kind: 'number', see: 'owner', decimals: 3 },
    currency: { kind: 'entry', chapter: 'attributes', optional: true, see: 'owner' },
    /** The tick at which the one that it is with is done; 0 where it is free, or nobody can tell. */
    busyUntil: { kind: 'tick', see: 'owner' },
    busy: { kind: 'flag', see: 'owner' },
    order: { kind: 'int', see: 'owner' },
  },
});
