/* eslint-disable no-restricted-syntax -- the kernel knows who acts and whose side they are on, and no other concept */
import { defineTable } from './define-table.js';

/** The name of the table whose rows are the actors: every owner is one of them. */
export const ACTORS = 'actors';

/** Whoever is in a world: what kind of actor they are, whose side they are on, and what they are called. */
export const actorTable = defineTable({
  name: ACTORS,
  columns: {
    type: { kind: 'entry', chapter: 'actors', see: 'everyone' },
    team: { kind: 'entry', chapter: 'teams', see: 'everyone', optional: true },
    name: { kind: 'text', see: 'everyone' },
  },
});
