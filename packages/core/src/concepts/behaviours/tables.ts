import { defineTable } from '../../world/define-table.js';

export const mindsTable = defineTable({
  name: 'minds',
  extends: 'actors',
  columns: {
    /** The tick at which it thinks again. */
    thinks: { kind: 'tick', see: 'server' },
    /** The tick until which it pauses. */
    pauses: { kind: 'tick', see: 'server' },
    /** The point that it is on its way to, and in which direction it goes through them. */
    leg: { kind: 'int', see: 'server' },
    step: { kind: 'int', see: 'server' },
    /** Where it was when it last thought. */
    wasX: { kind: 'number', see: 'server', decimals: 1 },
    wasY: { kind: 'number', see: 'server', decimals: 1 },
    /** Whom it is after, or gets away from. */
    quarry: { kind: 'actor', see: 'server' },
  },
});
