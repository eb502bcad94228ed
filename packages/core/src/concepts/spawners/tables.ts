import { defineTable } from '../../world/define-table.js';

export const spawnersTable = defineTable({
  name: 'spawners',
  columns: {
    /** Its position among the placed things. */
    placed: { kind: 'int', see: 'server' },
    /** The tick at which it makes something next; 0 where it waits for something else. */
    next: { kind: 'tick', see: 'server' },
    /** How many times it has made something, and how many things. */
    waves: { kind: 'int', see: 'server' },
    made: { kind: 'int', see: 'server' },
  },
});
