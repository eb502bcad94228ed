import { z } from 'zod';
import { toGrid, toWhole } from '../../math/grid.js';
import type { CompileContext } from '../../ruleset/context.js';
import { id } from '../../ruleset/fields.js';
import { defineConcept } from '../../world/concept.js';
import { amount, entry } from '../../world/event-fields.js';
import { defineEvents } from '../../world/events.js';
import type { Table } from '../../world/table.js';
import type { World } from '../../world/world.js';
import type { AttributeEntry } from '../attributes/index.js';
import { readAttribute } from '../attributes/index.js';
import { closedFor, ledger, moneyOf, ofMoney } from '../ledger/index.js';
import { standsNear } from '../shops/near.js';
import { exchange } from '../trade/index.js';
import { events as tradeEvents, type TradeRefusal } from '../trade/events.js';
import { asTold, isTold } from '../../ruleset/visible.js';
import { pricesTable } from './tables.js';
import { type Good, type Market, markets } from './state.js';
import { type MarketEntry, schema } from './schema.js';

export { markets } from './state.js';
export type { MarketEntry } from './schema.js';

function compileMarket(context: CompileContext, entry: MarketEntry, index: number): Market {
  const path = ['markets', index, 'goods'];
  if (context.section('economy') === undefined)
    context.problem(['markets', index], `${entry.label} pays in no money: say under "economy" which counter is money.`);
  return {
    index,
    id: entry.id,
    label: entry.label,
    at: entry.at === undefined ? -1 : context.index('actors', entry.at),
    reach: entry.reach,
    goods: entry.goods.map(({ good, price: written, whole }, k) => {
      const attribute = context.entry<AttributeEntry>('attributes', good);
      if (attribute && attribute.kind !== 'counter')
        context.problem([...path, k, 'good'], `${attribute.label} is a ${attribute.kind}: goods are counters.`);
      if (entry.goods.findIndex((other) => other.good === good) < k) context.problem([...path, k, 'good'], `${good} stands here already.`);
      if (good === context.section<{ currency?: string } | undefined>('economy')?.currency)
        context.problem([...path, k, 'good'], `${attribute?.label ?? good} is the money itself: it is not for sale.`);
      if (whole && 'walk' in written && written.walk.step > 0 && written.walk.step < 1)
        context.problem(
          [...path, k, 'price', 'walk', 'step'],
          `A price in whole amounts can’t move by ${written.walk.step}: let it step by 1 or more, or say "whole": false.`,
        );
      return {
        attribute: context.index('attributes', good),
        id: good,
        label: attribute?.label ?? good,
        whole,
        price: written,
        luck: context.purpose([...path, good, 'price']),
      };
    }),
  };
}

const money = entry('attributes');
const paid = amount('good', 'money');
const fields = { market: entry('markets'), good: entry('attributes'), money, amount: amount('good'), price: paid, total: paid };
const events = defineEvents({
  goodSold: {
    label: 'goods are sold',
    when: 'The goods are gone and their price is in the purse: both, or neither.',
    fields,
    patterns: ['market', 'good', 'amount', 'price', 'total'],
    arises: { from: 'markets', field: 'market' },
    see: 'owner',
    announced: true,
    sentence: (e, speak) =>
      `${e.who} sells ${Number(e.data['amount'] ?? 1) === 1 ? '' : `${e.data['amount']} × `}${speak.label('attributes', e.data['good']).toLowerCase()}${e.data['price'] === undefined ? '' : ` at ${e.data['price']}: ${e.data['total']}`}`,
  },
  priceMoved: {
    label: 'a price moves',
    when: 'A new day has begun, and a market pays another price than yesterday.',
    fields: { market: entry('markets'), good: entry('attributes'), money, price: paid, before: paid },
    patterns: ['market', 'good', 'price', 'before'],
    arises: { from: 'markets', field: 'market' },
    see: 'everyone',
    sentence: (e, speak) => `${speak.label('attributes', e.data['good'])} ${e.data['before']} → ${e.data['price']}`,
  },
});

/** Markets: they buy goods at a price that moves each day, in a range or walking. */
export const marketsConcept = defineConcept(markets, {
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
  compile: (context) => ({ list: context.entries<MarketEntry>('markets').map((entry, i) => compileMarket(context, entry, i)) }),
  tables: (_, rules) => {
    const see = { column: 'good', of: asTold(rules, 'attributes', ofMoney(rules) === 'server' ? 'server' : 'everyone') };
    return [pricesTable.under({ see })];
  },
  attach: (world, compiled) => ({ ...compiled, prices: pricesTable.in(world) }),
  events,
  inputs: {
    sell: {
      args: {
        good: id(),
        /** How many; all that one has where nothing is said. */
        amount: z.int('An amount is a whole number.').min(1, 'At least one.').max(1_000_000, 'At most a million.').optional(),
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
  display: ({ list }, rules) =>
    list.map(({ id: market, label, goods }) => ({
      id: market,
      label,
      goods: goods.filter((good) => isTold(rules, 'attributes', good.id)).map((good) => ({ id: good.id, label: good.label })),
    })),
});

function refuse(world: World, actor: number, data: TradeRefusal): void {
  world.emit(tradeEvents.tradeRefused, { subject: actor, source: actor }, data);
}

/** Sells goods at today's price, or says why not. Where nothing is said, all that somebody has. */
export function sell(world: World, actor: number, market: Market, good: string, asked: number | undefined): boolean {
  const one = market.goods.find(({ id: own }) => own === good)!;
  const closed = closedFor(world, actor);
  if (closed) {
    refuse(world, actor, { reason: closed });
    return false;
  }
  const has = readAttribute(world, actor, one.attribute);
  const amount = asked ?? Math.floor(has);
  const { currency } = ledger.in(world);
  const today = priceAt(world, market.index, one.attribute);
  if (amount <= 0 || has < amount) {
    refuse(world, actor, { reason: 'tooPoor', attribute: good, needs: Math.max(1, amount), present: has });
    return false;
  }
  const total = toGrid(today * amount);
  const short = exchange(world, actor, [{ attribute: one.attribute, amount }], [{ attribute: currency, amount: total }], one.label);
  if (short) {
    refuse(world, actor, { ...short });
    return false;
  }
  world.emit(
    events.goodSold,
    { subject: actor, source: actor },
    { market: market.id, good, money: moneyOf(world), amount, price: today, total },
  );
  return true;
}

function rowOf(world: World, market: number, attribute: number): number {
  const { prices } = markets.in(world);
  const { market: of, good: goods } = prices.cells;
  for (const row of prices.rows()) if (of[row] === market && goods[row] === attribute) return row;
  return -1;
}

/** What a market pays for one today. */
export function priceAt(world: World, market: number, attribute: number): number {
  const row = rowOf(world, market, attribute);
  return row < 0 ? 0 : markets.in(world).prices.cells.price[row];
}

/** What the first market that buys it pays for one today; 0 where none does. */
export function priceOf(world: World, attribute: number): number {
  const market = markets.in(world).list.find(({ goods }) => goods.some((good) => good.attribute === attribute));
  return market ? priceAt(world, market.index, attribute) : 0;
}

/** Between what a price can be. */
export const boundsOf = ({ price: written }: Good): readonly [number, number] =>
  'range' in written ? (written.range as [number, number]) : [written.walk.least, written.walk.most];

/** The next price: drawn anew from its range, or a step away from the last one. */
function draw(world: World, good: Good, last: number | undefined): number {
  const drawn = world.roll(good.luck, 0);
  const [least, most] = boundsOf(good);
  const from = last ?? ('walk' in good.price ? good.price.walk.start : 0);
  const next =
    'walk' in good.price ? (last === undefined ? from : from + (drawn * 2 - 1) * good.price.walk.step) : least + drawn * (most - least);
  if (!good.whole) return toGrid(Math.min(most, Math.max(least, next)));
  // Of a whole range each price is as likely as another.
  if ('range' in good.price)
    return Math.min(Math.floor(most), Math.ceil(least) + Math.floor(drawn * (Math.floor(most) - Math.ceil(least) + 1)));
  // Of whole steps each is as likely as another, those at the ends too.
  const reach = last === undefined ? 0 : Math.floor(good.price.walk.step);
  return Math.min(Math.floor(most), Math.max(Math.ceil(least), toWhole(from) + Math.floor(drawn * (2 * reach + 1)) - reach));
}

function setUp(world: World): void {
  const { list, prices } = markets.in(world);
  for (const market of list)
    for (const good of market.goods) if (rowOf(world, market.index, good.attribute) < 0) begin(world, prices, market, good);
}

function begin(world: World, prices: Table, market: Market, good: Good): void {
  const row = prices.add();
  const first = draw(world, good, undefined);
  prices.write(row, { market: market.index, good: good.attribute, price: first, before: first });
}

/** Moves all prices to those of a new day. */
export function movePrices(world: World): void {
  const { list, prices } = markets.in(world);
  for (const market of list)
    for (const good of market.goods) {
      const row = rowOf(world, market.index, good.attribute);
      if (row < 0) continue;
      const before = prices.cells.price[row];
      const next = draw(world, good, before);
      prices.write(row, { price: next, before });
      if (next !== before)
        world.emit(events.priceMoved, {}, { market: market.id, good: good.id, money: moneyOf(world), price: next, before });
    }
}

/** Under edited rules a price stays where it is as far as its bounds let it; what is new has one, what is gone has none. */
function follow(world: World): void {
  const { list, prices } = markets.in(world);
  for (let row = 0; row < prices.high; row++) {
    if (prices.live[row] === 0) continue;
    const market = prices.cells.market[row];
    const attribute = prices.cells.good[row];
    const good = list[market]?.goods.find((one) => one.attribute === attribute);
    if (!good) {
      prices.remove(row);
      continue;
    }
    const [least, most] = boundsOf(good);
    const price = prices.cells.price;
    price[row] = Math.min(most, Math.max(least, price[row]));
  }
  setUp(world);
}
