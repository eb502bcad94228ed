import type { Rules } from '../../ruleset/rules.js';
import type { LootTable, Quantity } from './compile.js';
import { loot } from './state.js';
import { entriesIn } from '../../ruleset/chapter.js';

interface Giving {
  readonly do: string;
  readonly attribute?: string;
  readonly amount?: number | string | { readonly random: readonly [number, number] };
}

/** The mean of a quantity as it is written; undefined where a formula says. */
const meanOf = ({ constant, formula, least, most }: Quantity): number | undefined => constant ?? (formula ? undefined : (least + most) / 2);

const written = (amount: Giving['amount']): number | undefined =>
  typeof amount === 'number' ? amount : typeof amount === 'object' ? (amount.random[0] + amount.random[1]) / 2 : undefined;

/**
 * What one opening of a table brings of each attribute on average, taken from what is written, with what its pickups give:
 * for saying of a price that it is out of reach. Undefined where formulas have a part in it; streaks and conditions are left aside.
 */
export function meanGains(rules: Rules, id: string): ReadonlyMap<string, number> | undefined {
  const { list } = loot.of(rules);
  const gains = new Map<string, number>();
  const add = (attribute: string, amount: number) => gains.set(attribute, (gains.get(attribute) ?? 0) + amount);
  const pickups = entriesIn<{ id: string; then: readonly Giving[] }>(rules, 'pickups');
  const attributes = rules.chapters.get('attributes')?.ids ?? [];
  const open = (table: LootTable, often: number): boolean => {
    const rolls = meanOf(table.rolls);
    const sum = table.steady?.sum ?? table.entries.reduce((all, { weight }) => all + (weight.constant ?? NaN), 0);
    if (rolls === undefined || Number.isNaN(sum)) return false;
    const lines = [
      ...table.always.map((drop) => ({ drop, p: 1 })),
      ...table.entries.map((drop) => ({ drop, p: sum > 0 ? (rolls * drop.weight.constant!) / sum : 0 })),
    ];
    return lines.every(({ drop, p }) => {
      const amount = meanOf(drop.quantity);
      if (amount === undefined) return false;
      if (drop.what === 'table') return open(list[drop.index], often * p * amount);
      if (drop.what === 'gives') add(attributes[drop.index], often * p * amount);
      if (drop.what === 'pickup')
        for (const action of pickups[drop.index].then) {
          const given = action.do === 'give' ? written(action.amount) : undefined;
          if (given !== undefined) add(action.attribute!, often * p * amount * given);
        }
      return true;
    });
  };
  const table = list.find((one) => one.id === id);
  return table && open(table, 1) ? gains : undefined;
}
