import { defineTable } from '../../world/define-table.js';

export const crewsTable = defineTable({
  name: 'crews',
  extends: 'actors',
  columns: {
    settled: { kind: 'entry', chapter: 'teams', optional: true, see: 'server' },
    party: { kind: 'int', see: 'server' },
    /** The tick at which it came. */
    joined: { kind: 'tick', see: 'server' },
  },
});
