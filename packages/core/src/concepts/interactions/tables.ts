import { defineTable } from '../../world/define-table.js';

export const visitsTable = defineTable({
  name: 'visits',
  owner: 'visitor',
  columns: {
    visitor: { kind: 'actor', see: 'everyone' },
    thing: { kind: 'actor', see: 'everyone' },
    interaction: { kind: 'entry', chapter: 'interactions', see: 'everyone' },
    since: { kind: 'tick', see: 'everyone' },
    /** When its time is over; 0 where only its list of actions says. */
    until: { kind: 'tick', see: 'everyone' },
    paid: { kind: 'number', see: 'server', decimals: 3 },
    cause: { kind: 'serial', see: 'server' },
  },
});
