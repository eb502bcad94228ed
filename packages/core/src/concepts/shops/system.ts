import { World } from '../../world/world.js';
import { closedFor } from '../ledger/index.js';
import { type CompiledPart, exchange, exchangeRefusal, type Part } from '../trade/index.js';
import { type Offer } from './compile.js';
import { events as tradeEvents, type TradeRefusal } from '../trade/events.js';
import { shops } from './state.js';
import { events } from './events.js';

/** Nobody has more than an edited offer lets them. */
export function keepWithin(world: World, row: number): void {
  const { list, held, players } = shops.in(world);
  if (!players[world.actors.cells.type[row]]) return;
  for (const { index, most } of list) if (most > 0) held[index].data[row] = Math.max(0, Math.min(most, held[index].data[row]));
}

export function refuse(world: World, actor: number, data: TradeRefusal): void {
  world.emit(tradeEvents.tradeRefused, { subject: actor, source: actor }, data);
}

/** How many of an offer somebody has bought, or the tier that they have; 0 where they have gone. */
export function heldOf(world: World, actor: number, offer: number): number {
  const row = world.actors.rowOf(actor);
  return row < 0 ? 0 : shops.in(world).held[offer].data[row];
}

function stockRow(world: World, offer: number): number {
  const { stocks } = shops.in(world);
  const offers = stocks.cells.offer;
  for (const row of stocks.rows()) if (offers[row] === offer) return row;
  return -1;
}

/** How many of an offer are left for everybody; Infinity where there are as many as like. */
export function leftOf(world: World, { index, stock }: Offer): number {
  if (stock < 0) return Infinity;
  const row = stockRow(world, index);
  return Math.max(0, stock - (row < 0 ? 0 : shops.in(world).stocks.cells.sold[row]));
}

/** What an offer costs somebody, and what it gives them. */
export interface Deal {
  readonly costs: readonly Part[];
  readonly gets: readonly Part[];
}

/** What an offer costs and gives somebody now: of the next tier, for an offer in tiers. */
export function dealOf(world: World, actor: number, offer: Offer): Deal {
  const parties = { ...World.alone(actor), event: { tier: heldOf(world, actor, offer.index) + 1 } };
  const now = ({ attribute, amount }: CompiledPart) => ({ attribute, amount: Math.max(0, amount.run(world, parties)) });
  return { costs: offer.costs.map(now), gets: offer.gets.map(now) };
}

/** What an offer costs somebody at each end of a day, in the tier that they have. */
export function upkeepOf(world: World, actor: number, offer: Offer, tier = heldOf(world, actor, offer.index)): number {
  if (!offer.upkeep || tier <= 0) return 0;
  return Math.max(0, offer.upkeep.run(world, { ...World.alone(actor), event: { tier } }));
}

/**
 * What keeps somebody from buying an offer; nothing where they may.
 * @param deal what it costs and gives them, where that is known already
 */
export function buyingRefusal(world: World, actor: number, offer: Offer, deal?: Deal): TradeRefusal | undefined {
  const closed = closedFor(world, actor);
  if (closed) return { reason: closed };
  if (offer.most > 0 && heldOf(world, actor, offer.index) >= offer.most) return { reason: offer.tiers > 0 ? 'topTier' : 'atMost' };
  if (leftOf(world, offer) <= 0) return { reason: 'soldOut' };
  const unmet = offer.needs.find(({ test }) => test(world, World.alone(actor)) === 0);
  if (unmet) return { reason: 'needs', says: unmet.say };
  const { costs, gets } = deal ?? dealOf(world, actor, offer);
  return exchangeRefusal(world, actor, costs, gets);
}

/** Buys one of an offer, or says why not: what it costs, what it gives and the stock change together or not at all. */
export function buy(world: World, actor: number, offer: Offer, shop: string): boolean {
  const refusal = buyingRefusal(world, actor, offer);
  if (refusal) {
    refuse(world, actor, { offer: offer.id, ...refusal });
    return false;
  }
  const row = world.actors.rowOf(actor);
  const { costs, gets } = dealOf(world, actor, offer);
  world.goesOn(offer.rule);
  exchange(world, actor, costs, gets, offer.label);
  const { held, stocks } = shops.in(world);
  const tier = ++held[offer.index].data[row];
  if (offer.stock >= 0) {
    const found = stockRow(world, offer.index);
    const at = found >= 0 ? found : stocks.add();
    stocks.write(at, { offer: offer.index, sold: (found >= 0 ? stocks.cells.sold[at] : 0) + 1 });
  }
  world.follow(events.offerBought, { subject: actor, source: actor }, { offer: offer.id, shop, tier, tiered: offer.tiers > 0 }, () =>
    offer.then(world, World.alone(actor)),
  );
  return true;
}

/** Fills up what is filled up each day. */
export function restock(world: World): void {
  const { list, stocks } = shops.in(world);
  const offers = stocks.cells.offer;
  for (const row of stocks.rows()) if (list[offers[row]].daily) stocks.cells.sold[row] = 0;
}
