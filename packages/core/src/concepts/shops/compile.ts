import type { FormulaFunction } from '../../formula/index.js';
import type { Amount, CompileContext, CompiledThen } from '../../ruleset/context.js';
import { playerKinds } from '../actors/index.js';
import { type CompiledPart, compileParts } from '../trade/index.js';
import { LOCALS, type OfferEntry, type ShopEntry } from './schema.js';

export interface Shop {
  readonly index: number;
  readonly id: string;
  readonly label: string;
  readonly at: number;
  readonly reach: number;
  readonly sells: readonly number[];
}

export interface Offer {
  readonly index: number;
  readonly id: string;
  readonly label: string;
  readonly costs: readonly CompiledPart[];
  readonly gets: readonly CompiledPart[];
  readonly then: CompiledThen;
  /** It, among the rules that act. */
  readonly rule: number;
  /** 0 for what has none. */
  readonly tiers: number;
  /** Most that one may have; 0 for as many as like. */
  readonly most: number;
  /** How many there are; -1 for as many as like. */
  readonly stock: number;
  readonly daily: boolean;
  readonly needs: readonly { readonly test: FormulaFunction; readonly say: string }[];
  readonly upkeep: Amount | undefined;
}

export interface CompiledShops {
  readonly offers: readonly OfferEntry[];
  readonly list: readonly Offer[];
  readonly shops: readonly Shop[];
  readonly players: readonly boolean[];
}

function compileOffer(context: CompileContext, entry: OfferEntry, index: number): Offer {
  const path = ['offers', index];
  const over = (source: unknown) => context.amountOver(source as number | string, LOCALS);
  if (entry.tiers !== undefined && entry.atMost !== undefined)
    context.problem([...path, 'atMost'], `${entry.label} is bought tier by tier: its tiers say how many one may have.`);
  if (entry.upkeep !== undefined && context.section('economy') === undefined)
    context.problem([...path, 'upkeep'], `${entry.label} costs upkeep in no money: say under "economy" which counter is money.`);
  return {
    index,
    id: entry.id,
    label: entry.label,
    rule: context.ruleAt(path),
    costs: compileParts(context, entry.costs, [...path, 'costs'], over),
    gets: compileParts(context, entry.gets, [...path, 'gets'], over),
    then: context.then(entry.then, [...path, 'then']),
    tiers: entry.tiers ?? 0,
    most: entry.tiers ?? entry.atMost ?? 0,
    stock: entry.stock ?? -1,
    daily: entry.restock === 'daily',
    needs: entry.needs.map(({ if: test, say }) => ({ test: context.condition(test), say })),
    upkeep: entry.upkeep === undefined ? undefined : over(entry.upkeep),
  };
}

export function* compileShops(context: CompileContext): Generator<void, CompiledShops> {
  const offers = context.entries<OfferEntry>('offers');
  return {
    offers,
    list: yield* context.each('offers', offers, (entry, i) => compileOffer(context, entry, i)),
    shops: yield* context.each('shops', context.entries<ShopEntry>('shops'), (entry, index) => {
      entry.sells.forEach((id, k) => {
        if (entry.sells.indexOf(id) < k) context.problem(['shops', index, 'sells', k], `${entry.label} sells ${id} already.`);
      });
      return {
        index,
        id: entry.id,
        label: entry.label,
        at: entry.at === undefined ? -1 : context.index('actors', entry.at),
        reach: entry.reach,
        sells: entry.sells.map((id) => context.index('offers', id)),
      };
    }),
    players: playerKinds(context),
  };
}
