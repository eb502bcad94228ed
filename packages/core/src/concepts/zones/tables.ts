import { defineTable } from '../../world/define-table.js';

export const insideTable = defineTable({
  name: 'inside',
  owner: 'actor',
  columns: {
    actor: { kind: 'actor', see: 'owner' },
    /** The zone's position among the placed things. */
    placed: { kind: 'int', see: 'owner' },
    since: { kind: 'tick', see: 'owner' },
    /** When it next does something to who is inside; 0 for never. */
    next: { kind: 'tick', see: 'server' },
    seen: { kind: 'tick', see: 'server' },
  },
});
