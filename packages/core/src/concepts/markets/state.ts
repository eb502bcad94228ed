import { conceptState } from '../../world/concept-state.js';
import { type TableOf } from '../../world/define-table.js';
import type { PriceJson } from './schema.js';
import { type pricesTable } from './tables.js';

export interface Markets extends CompiledMarkets {
  readonly prices: TableOf<typeof pricesTable>;
}

export interface CompiledMarkets {
  readonly list: readonly Market[];
}

export interface Market {
  readonly index: number;
  readonly id: string;
  readonly label: string;
  readonly at: number;
  readonly reach: number;
  /** It, among the rules that act. */
  readonly rule: number;
  readonly goods: readonly Good[];
}

export interface Good {
  readonly attribute: number;
  readonly id: string;
  readonly label: string;
  readonly whole: boolean;
  readonly price: PriceJson;
  readonly luck: number;
}

/** What the markets concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const markets = conceptState<CompiledMarkets, Markets>('markets');
