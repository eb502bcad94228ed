import { defineTable } from '../../world/define-table.js';

export const statesTable = defineTable({
  name: 'states',
  extends: 'actors',
  columns: {
    state: { kind: 'entry', chapter: 'states', optional: true, see: 'rules' },
    since: { kind: 'tick', see: 'rules' },
    /** The tick at which it ends by itself; 0 where something else ends it. */
    until: { kind: 'tick', see: 'rules' },
    /** Whether the actor may move of its own will: its state says so, or what it is doing does. */
    free: { kind: 'flag', see: 'owner' },
  },
});
