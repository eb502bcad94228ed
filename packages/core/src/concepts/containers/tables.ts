import { defineTable } from '../../world/define-table.js';

/** What a lid is doing, by the number in its cell. */
export const LIDS = ['closed', 'opening', 'open', 'closing'] as const;
export const CLOSED = 0;
export const OPENING = 1;
export const OPEN = 2;
export const CLOSING = 3;

export const lidsTable = defineTable({
  name: 'lids',
  extends: 'actors',
  columns: {
    lid: { kind: 'int', words: LIDS, see: 'everyone' },
    /** When what it is doing is done; 0 where it stays so. */
    until: { kind: 'tick', see: 'everyone' },
    /** When what is in it was decided last; 0 for not yet. */
    filled: { kind: 'tick', see: 'server' },
    /** Why the last visitor let go, by its number among the reasons. */
    how: { kind: 'int', see: 'server' },
    cause: { kind: 'serial', see: 'server' },
  },
});

/** Who has something open, or is opening it. */
export const openingsTable = defineTable({
  name: 'openings',
  owner: 'visitor',
  columns: {
    visitor: { kind: 'actor', see: 'everyone' },
    thing: { kind: 'actor', see: 'everyone' },
    /** They had its lid come up; the others came by when it was open or opening. */
    begins: { kind: 'flag', see: 'server' },
    since: { kind: 'tick', see: 'server' },
    cause: { kind: 'serial', see: 'server' },
  },
});

/** What is in things: decided once, there until it is taken. */
export const contentsTable = defineTable({
  name: 'contents',
  owner: 'thing',
  columns: {
    thing: { kind: 'actor', see: 'server' },
    /** The number of the name whose it is; -1 for everybody's. */
    whose: { kind: 'int', see: 'server' },
    /** What it is, by the number of its id's text. */
    what: { kind: 'int', see: 'server' },
    amount: { kind: 'number', see: 'server', decimals: 3 },
  },
});

/** Whose contents a container has been asked for, where each player finds their own. */
export const filledTable = defineTable({
  name: 'filled',
  owner: 'thing',
  columns: {
    thing: { kind: 'actor', see: 'server' },
    whose: { kind: 'int', see: 'server' },
  },
});

/** What somebody who has a thing open sees of its contents. */
export const shownTable = defineTable({
  name: 'shown',
  owner: 'visitor',
  columns: {
    visitor: { kind: 'actor', see: 'owner' },
    thing: { kind: 'actor', see: 'owner' },
    /** The row of the contents: by this it is asked for. */
    item: { kind: 'int', see: 'owner' },
    /** Where it is decided by a loot table, that is the server's. */
    what: { kind: 'text', see: 'server' },
    label: { kind: 'text', see: 'owner' },
    amount: { kind: 'number', see: 'owner', decimals: 3 },
    place: { kind: 'int', see: 'owner' },
  },
});
