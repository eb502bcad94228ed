import { defineTable } from '../../world/define-table.js';

export const memoryTable = defineTable({
  name: 'memory',
  hidden: true,
  columns: {
    /** The number of the name that it is of; EVERYBODY where it is of all. */
    who: { kind: 'int', see: 'server' },
    /** What it is about: the purpose of a place in the rules. */
    what: { kind: 'int', see: 'server' },
    /** The handle of the thing that it happened at; 0 where it is about none. */
    thing: { kind: 'int', see: 'server' },
    count: { kind: 'int', see: 'server' },
    /** From this tick on it counts no more; 0 for never. */
    until: { kind: 'tick', see: 'server' },
  },
});
