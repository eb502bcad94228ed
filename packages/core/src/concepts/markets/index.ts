import { z } from 'zod';
import { reference } from '../../ruleset/fields.js';
import { defineConcept } from '../../world/concept.js';
import { ofMoney } from '../ledger/index.js';
import { standsNear } from '../shops/near.js';
import { asTold, isTold } from '../../ruleset/visible.js';
import { pricesTable } from './tables.js';
import { markets } from './state.js';
import { type MarketEntry, schema } from './schema.js';
import { compileMarket } from './compile.js';
import { follow, priceOf, refuse, sell, setUp } from './system.js';
import { events } from './events.js';
import { raised } from '../attributes/consequences.js';
import { marketChapter } from './schema.js';
import { economyOf } from '../ledger/schema.js';

export { markets } from './state.js';
export type { MarketEntry } from './schema.js';
export { sell, priceAt, priceOf, boundsOf, movePrices } from './system.js';

/** Markets: they buy goods at a price that moves each day, in a range or walking. */
export const marketsConcept = defineConcept(markets, {
  // What is sold is paid for in money.
  consequences: (rules) => {
    const economy = economyOf(rules);
    return economy && marketChapter.of(rules).length > 0 ? [raised(economy.currency)] : [];
  },
  sections: { markets: { kind: 'chapter', title: 'Markets', entry: schema } },
  vocabulary: (ids) => ({
    functions: [
      {
        name: 'price',
        chapter: 'attributes',
        ids: ids('attributes'),
        amounts: 0,
        yields: 'amount',
        read: (attribute) => (world) => priceOf(world, attribute),
      },
    ],
  }),
  *compileInParts(context) {
    return {
      list: yield* context.each('markets', context.entries<MarketEntry>('markets'), (entry, i) => compileMarket(context, entry, i)),
    };
  },
  tables: (_, rules) => {
    const see = { column: 'good', of: asTold(rules, 'attributes', ofMoney(rules) === 'server' ? 'server' : 'everyone') };
    return [pricesTable.under({ see })];
  },
  attach: (world, compiled) => ({ ...compiled, prices: pricesTable.in(world) }),
  events,
  inputs: {
    sell: {
      label: 'sell goods',
      sentence: 'sells {good}, {amount} of them',
      args: {
        good: reference('attributes'),
        /** How many; all that one has where nothing is said. */
        amount: z.int('An amount is a whole number.').min(1, 'At least one.').max(1_000_000, 'At most a million.').optional(),
      },
      examples: (rules) => {
        const goods = markets.of(rules).list.flatMap((market) => market.goods.map(({ id }) => id));
        return [...new Set(goods)].flatMap((good) => [{ good, amount: 1 }, { good, amount: 2 }, { good }]);
      },
      traced: true,
      run: (world, actor, { good, amount }) => {
        // What is the server's alone is not for sale by hand: asking for it tells no more than asking for nothing.
        const known = isTold(world.rules, 'attributes', String(good));
        const near = markets.in(world).list.filter((market) => known && market.goods.some((one) => one.id === good));
        const here = near.find((market) => standsNear(world, actor, market));
        if (!here) return refuse(world, actor, { reason: near.length === 0 ? 'notSold' : 'tooFar' });
        sell(world, actor, here, String(good), amount === undefined ? undefined : Number(amount));
      },
    },
  },
  lifecycle: { worldStarted: setUp, rulesAdopted: follow },
  workbench: async () => (await import('../workbenches.js')).markets,
  display: ({ list }, rules) =>
    list.map(({ id: market, label, goods }) => ({
      id: market,
      label,
      goods: goods.filter((good) => isTold(rules, 'attributes', good.id)).map((good) => ({ id: good.id, label: good.label })),
    })),
});
