import { defineTable } from '../../world/define-table.js';

export const effectsTable = defineTable({
  name: 'effects',
  owner: 'actor',
  columns: {
    actor: { kind: 'actor', see: 'rules' },
    effect: { kind: 'entry', chapter: 'effects', see: 'rules' },
    source: { kind: 'actor', see: 'rules' },
    /** The tick at which it ends; 0 where nothing but an event ends it. */
    ends: { kind: 'tick', see: 'rules' },
    /** The handle of the timer that ends it; 0 for none. */
    timer: { kind: 'int', see: 'server' },
    stacks: { kind: 'int', see: 'rules' },
    uses: { kind: 'int', see: 'rules' },
    pulse: { kind: 'tick', see: 'server' },
    /** It is there and does not count: a stronger one of its kind does. */
    muted: { kind: 'flag', see: 'rules' },
    strength: { kind: 'number', see: 'server', decimals: 3 },
    /** The serial of the event that began it. */
    cause: { kind: 'serial', see: 'server' },
  },
});
