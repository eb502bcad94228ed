import { defineTable } from '../../world/define-table.js';

/** What both know of what is on its way: which ability of whom, and where it is. */
const shared = {
  ability: { kind: 'entry', chapter: 'abilities', see: 'rules' },
  user: { kind: 'actor', see: 'rules' },
  x: { kind: 'number', see: 'rules', decimals: 1 },
  y: { kind: 'number', see: 'rules', decimals: 1 },
} as const;

export const projectilesTable = defineTable({
  name: 'projectiles',
  owner: 'user',
  columns: {
    ...shared,
    /** The direction that it flies in, of length 1, and how far it gets a second. */
    wayX: { kind: 'number', see: 'rules', decimals: 3 },
    wayY: { kind: 'number', see: 'rules', decimals: 3 },
    speed: { kind: 'number', see: 'rules', decimals: 1 },
    ends: { kind: 'tick', see: 'server' },
    /** How many more it goes through. */
    pierce: { kind: 'int', see: 'server' },
    target: { kind: 'actor', see: 'server' },
    cause: { kind: 'serial', see: 'server' },
  },
});

/** Whom each has met: nobody is met twice. */
export const strikesTable = defineTable({
  name: 'strikes',
  hidden: true,
  columns: {
    projectile: { kind: 'int', see: 'server' },
    target: { kind: 'actor', see: 'server' },
  },
});

export const areasTable = defineTable({
  name: 'areas',
  owner: 'user',
  columns: {
    ...shared,
    radius: { kind: 'number', see: 'rules', decimals: 1 },
    lands: { kind: 'tick', see: 'rules' },
    ends: { kind: 'tick', see: 'rules' },
    pulse: { kind: 'tick', see: 'server' },
    /** Whether it has caught anybody yet. */
    met: { kind: 'flag', see: 'server' },
    cause: { kind: 'serial', see: 'server' },
  },
});
