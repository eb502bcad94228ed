import { defineTable } from '../../world/define-table.js';

export const calendarTable = defineTable({
  name: 'calendar',
  columns: {
    /** Seconds since 1970 that the server said, at which tick, and by how much that was put forward for a trial. */
    now: { kind: 'number', see: 'everyone', decimals: 0 },
    at: { kind: 'tick', see: 'everyone' },
    ahead: { kind: 'number', see: 'everyone', decimals: 0 },
  },
});
