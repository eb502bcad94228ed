import { defineTable } from '../../world/define-table.js';

export const bodiesTable = defineTable({
  name: 'bodies',
  extends: 'actors',
  columns: {
    x: { kind: 'number', see: 'everyone', decimals: 1 },
    y: { kind: 'number', see: 'everyone', decimals: 1 },
    /** The direction asked for; a body on its way to a goal takes it from there. */
    headingX: { kind: 'number', see: 'server', decimals: 3 },
    headingY: { kind: 'number', see: 'server', decimals: 3 },
    goalX: { kind: 'number', see: 'server', decimals: 1 },
    goalY: { kind: 'number', see: 'server', decimals: 1 },
    toGoal: { kind: 'flag', see: 'server' },
    /** Where it looks: the direction that it went last, of length 1. */
    facingX: { kind: 'number', see: 'everyone', decimals: 2 },
    facingY: { kind: 'number', see: 'everyone', decimals: 2 },
    /** The serial of the input that set it moving. */
    cause: { kind: 'serial', see: 'server' },
  },
});
