import { defineTable } from '../../world/define-table.js';

/** What lies there for one player alone is told to that player alone. */
const TOLD = { column: 'own', of: ['everyone', 'owner'] } as const;

/** What lies in the arena. */
export const pickupsTable = defineTable({
  name: 'pickups',
  owner: 'owner',
  columns: {
    pickup: { kind: 'entry', chapter: 'pickups', see: TOLD },
    x: { kind: 'number', see: TOLD, decimals: 1 },
    y: { kind: 'number', see: TOLD, decimals: 1 },
    /** The only one who may take it, and who sees it; 0 for everybody. */
    owner: { kind: 'actor', see: TOLD },
    own: { kind: 'flag', see: 'server' },
    /** One more than its position among the placed things; 0 for one that was not placed. */
    placed: { kind: 'int', see: 'server' },
    /** The luck that was drawn for it as it appeared; 0 where its taker's is drawn. What it gives by that; 0 where that is not known. */
    luck: { kind: 'int', see: 'server' },
    worth: { kind: 'number', see: TOLD, decimals: 2 },
    /** The tick at which it is gone unclaimed; 0 for never. */
    fades: { kind: 'tick', see: TOLD },
    /** One more than the position of the spawner that made it; 0 for none. */
    made: { kind: 'int', see: 'server' },
  },
});

/** What is gone for one player although it lies there for others. */
export const pickupsTakenTable = defineTable({
  name: 'pickupsTaken',
  owner: 'actor',
  columns: {
    actor: { kind: 'actor', see: 'owner' },
    row: { kind: 'int', see: 'owner' },
    until: { kind: 'tick', see: 'owner' },
  },
});

/** Who touches what may not be theirs, so that it is told once and not at every tick. */
export const pickupsRefusedTable = defineTable({
  name: 'pickupsRefused',
  owner: 'actor',
  columns: {
    actor: { kind: 'actor', see: 'server' },
    thing: { kind: 'int', see: 'server' },
    tick: { kind: 'tick', see: 'server' },
  },
});
