import { defineTable } from '../../world/define-table.js';

export const seatsTable = defineTable({
  name: 'seats',
  owner: 'actor',
  columns: {
    actor: { kind: 'actor', see: 'everyone' },
    name: { kind: 'text', see: 'everyone' },
  },
});
