import { toGrid, toWhole } from '../../math/grid.js';
import type { Table } from '../../world/table.js';
import type { World } from '../../world/world.js';
import { readAttribute } from '../attributes/index.js';
import { closedFor, ledger, moneyOf } from '../ledger/index.js';
import { exchange } from '../trade/index.js';
import { events as tradeEvents, type TradeRefusal } from '../trade/events.js';
import { type Good, type Market, markets } from './state.js';
import { events } from './events.js';

export function refuse(world: World, actor: number, data: TradeRefusal): void {
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
  world.goesOn(market.rule);
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

export function rowOf(world: World, market: number, attribute: number): number {
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
export function draw(world: World, good: Good, last: number | undefined): number {
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

export function setUp(world: World): void {
  const { list, prices } = markets.in(world);
  for (const market of list)
    for (const good of market.goods) if (rowOf(world, market.index, good.attribute) < 0) begin(world, prices, market, good);
}

export function begin(world: World, prices: Table, market: Market, good: Good): void {
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
export function follow(world: World): void {
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
