import { defineTable } from '../../world/define-table.js';

export const waitsTable = defineTable({
  name: 'waits',
  owner: 'owner',
  columns: {
    owner: { kind: 'actor', see: 'server' },
    source: { kind: 'actor', see: 'server' },
    target: { kind: 'actor', see: 'server' },
    /** The number under which the rules keep what is still to be done. */
    piece: { kind: 'int', see: 'server' },
    /** What the list belongs to and ends with; 0 where it stands for itself. */
    scope: { kind: 'int', see: 'server' },
    /** The luck that was drawn before it ran; 0 where its owner's is drawn. */
    luck: { kind: 'int', see: 'server' },
    /** Whether what follows once has followed, for another. */
    repeated: { kind: 'flag', see: 'server' },
    cause: { kind: 'serial', see: 'server' },
  },
});
