import type { TableSpec } from '../../world/columns.js';

/** What a lid is doing, by the number in its cell. */
export const LIDS = ['closed', 'opening', 'open', 'closing'] as const;
export type Lid = (typeof LIDS)[number];
export const CLOSED = 0;
export const OPENING = 1;
export const OPEN = 2;
export const CLOSING = 3;

export const TABLES: readonly TableSpec[] = [
  {
    name: 'lids',
    extends: 'actors',
    columns: [
      { name: 'lid', kind: 'int', see: 'everyone' },
      // When what it is doing is done; 0 where it stays so.
      { name: 'until', kind: 'tick', see: 'everyone' },
      // When what is in it was decided last; 0 for not yet.
      { name: 'filled', kind: 'tick', see: 'server' },
      // Why the last visitor let go, by its number among the reasons.
      { name: 'how', kind: 'int', see: 'server' },
      { name: 'cause', kind: 'serial', see: 'server' },
    ],
  },
  {
    // Who has something open, or is opening it.
    name: 'openings',
    owner: 'visitor',
    columns: [
      { name: 'visitor', kind: 'actor', see: 'everyone' },
      { name: 'thing', kind: 'actor', see: 'everyone' },
      // They had its lid come up; the others came by when it was open or opening.
      { name: 'begins', kind: 'flag', see: 'server' },
      { name: 'since', kind: 'tick', see: 'server' },
      { name: 'cause', kind: 'serial', see: 'server' },
    ],
  },
  {
    // What is in things: decided once, there until it is taken.
    name: 'contents',
    owner: 'thing',
    columns: [
      { name: 'thing', kind: 'actor', see: 'server' },
      // The number of the name whose it is; -1 for everybody's.
      { name: 'whose', kind: 'int', see: 'server' },
      // What it is, by the number of its id's text.
      { name: 'what', kind: 'int', see: 'server' },
      { name: 'amount', kind: 'number', see: 'server', decimals: 3 },
    ],
  },
  {
    // Whose contents a container has been asked for, where each player finds their own.
    name: 'filled',
    owner: 'thing',
    columns: [
      { name: 'thing', kind: 'actor', see: 'server' },
      { name: 'whose', kind: 'int', see: 'server' },
    ],
  },
  {
    // What somebody who has a thing open sees of its contents.
    name: 'shown',
    owner: 'visitor',
    columns: [
      { name: 'visitor', kind: 'actor', see: 'owner' },
      { name: 'thing', kind: 'actor', see: 'owner' },
      // The row of the contents: by this it is asked for.
      { name: 'item', kind: 'int', see: 'owner' },
      // Where it is decided by a loot table, that is the server's.
      { name: 'what', kind: 'text', see: 'server' },
      { name: 'label', kind: 'text', see: 'owner' },
      { name: 'amount', kind: 'number', see: 'owner', decimals: 3 },
      { name: 'place', kind: 'int', see: 'owner' },
    ],
  },
];
