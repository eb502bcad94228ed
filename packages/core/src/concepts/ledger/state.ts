import { conceptState } from '../../world/concept-state.js';
import { type EconomyRules } from './schema.js';
import { type TableOf } from '../../world/define-table.js';
import { type accountsTable, type ledgerTable } from './tables.js';

export interface CompiledLedger {
  readonly economy: EconomyRules | undefined;
  /** The position of the currency; -1 where there is no economy. */
  readonly currency: number;
  readonly players: readonly boolean[];
}

export interface Ledger extends CompiledLedger {
  /** What is kept of the money of each player, as it is now. */
  readonly account: TableOf<typeof accountsTable>['cells'];
  readonly lines: TableOf<typeof ledgerTable>;
}

/** What the ledger concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const ledger = conceptState<CompiledLedger, Ledger>('ledger');
