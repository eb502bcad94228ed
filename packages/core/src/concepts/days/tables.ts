import { defineTable } from '../../world/define-table.js';

export const daysTable = defineTable({
  name: 'days',
  columns: {
    day: { kind: 'int', see: 'everyone' },
    /** When it ends by itself; 0 where players end it. */
    ends: { kind: 'tick', see: 'everyone' },
    /** It is over, and somebody still has a last chance to pay what it cost. */
    settling: { kind: 'flag', see: 'everyone' },
  },
});
