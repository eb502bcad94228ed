import { defineTable } from '../../world/define-table.js';

export const livesTable = defineTable({
  name: 'lives',
  extends: 'actors',
  columns: {
    /** The tick at which it comes back; 0 where it is up, or never does. */
    returns: { kind: 'tick', see: 'everyone' },
    falls: { kind: 'int', see: 'everyone' },
    homeX: { kind: 'number', see: 'server', decimals: 1 },
    homeY: { kind: 'number', see: 'server', decimals: 1 },
    /** The event that emptied what it lives by; 0 where that emptied by itself. */
    emptied: { kind: 'serial', see: 'server' },
    /** It has been put somewhere of its own, and is not one of those who begin at a start point. */
    placed: { kind: 'flag', see: 'server' },
    /** One more than its position among the placed things; 0 for one that was not placed. */
    listed: { kind: 'int', see: 'server' },
    /** One more than the position of the spawner that made it; 0 for none. */
    made: { kind: 'int', see: 'server' },
  },
});

export const harmTable = defineTable({
  name: 'harm',
  owner: 'actor',
  columns: {
    actor: { kind: 'actor', see: 'server' },
    by: { kind: 'actor', see: 'server' },
    amount: { kind: 'number', see: 'server', decimals: 1 },
    tick: { kind: 'tick', see: 'server' },
    cause: { kind: 'serial', see: 'server' },
  },
});
