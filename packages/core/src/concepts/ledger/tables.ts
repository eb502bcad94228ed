import { defineTable } from '../../world/define-table.js';

/** What is kept of a player's money, and the statement of the last day. */
export const accountsTable = defineTable({
  name: 'accounts',
  title: 'Money',
  extends: 'actors',
  columns: {
    known: { kind: 'flag', see: 'server', saved: true, label: 'Account opened', range: [0, 1] },
    /** Whether today's account is of this stay: what came in and went out before is not told any more. */
    here: { kind: 'flag', see: 'server' },
    days: { kind: 'int', see: 'rules', saved: true, label: 'Days that are over', range: [0, 1_000_000] },
    opening: { kind: 'number', decimals: 2, see: 'rules', saved: true, label: 'Money as the day began', range: [-1e9, 1e9] },
    owed: { kind: 'number', decimals: 2, see: 'rules', saved: true, label: 'Money owed', range: [0, 1e9] },
    /** Whether its player has asked for the day to end: everybody may see whom it waits for. */
    ready: { kind: 'flag', see: 'everyone' },
    /** The tick at which a last chance is over; 0 where there is none. */
    until: { kind: 'tick', see: 'rules' },
    ruined: { kind: 'flag', see: 'everyone', saved: true, label: 'Ruined', range: [0, 1] },
    goal: { kind: 'int', see: 'everyone', saved: true, label: 'Goal reached on day', range: [0, 1_000_000] },
    lastDay: { kind: 'int', see: 'rules' },
    lastOpening: { kind: 'number', decimals: 2, see: 'rules' },
    lastClosing: { kind: 'number', decimals: 2, see: 'rules' },
  },
});

/** What came in and went out of a player's purse today, by where it came from. */
export const ledgerTable = defineTable({
  name: 'ledger',
  owner: 'actor',
  columns: {
    actor: { kind: 'actor', see: 'rules' },
    day: { kind: 'int', see: 'rules' },
    label: { kind: 'text', see: 'rules' },
    amount: { kind: 'number', decimals: 2, see: 'rules' },
    times: { kind: 'int', see: 'rules' },
  },
});
