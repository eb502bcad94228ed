import { AGAINST, type stallsTable, type warePricesTable, type waresTable } from './tables.js';
import type { RowOf } from '../../world/define-table.js';
import type { World } from '../../world/world.js';
import { ledger } from '../ledger/index.js';
import { markets } from '../markets/index.js';
import { seats } from '../seats/index.js';
import { buyingRefusal, dealOf, heldOf, keepersNear, keepersOf, leftOf, type Offer, shops, standsNear, upkeepOf } from '../shops/index.js';
import { stalls } from './state.js';

/** The rows that seats are to be told of. */
export interface Rows {
  readonly near: RowOf<typeof stallsTable>[];
  readonly wares: RowOf<typeof waresTable>[];
  readonly prices: RowOf<typeof warePricesTable>[];
}

const NOBODY: readonly number[] = [];

/** The rows of those who keep a shop or a market; found anew when actors came or went. */
function allKeepers(world: World): readonly number[] {
  const { keepers } = stalls.in(world);
  if (keepers.version !== world.actors.version) {
    keepers.rows = keepersOf(world, [...shops.in(world).shops, ...markets.in(world).list]);
    keepers.version = world.actors.version;
  }
  return keepers.rows;
}

export function showAll(world: World): void {
  const { near, wares, prices, farthest } = stalls.in(world);
  const { shops: all, list } = shops.in(world);
  const { list: places } = markets.in(world);
  if (all.length + places.length === 0 && near.count === 0) return;
  if (!ledger.of(world.rules).economy && all.length === 0) return;
  const rows: Rows = { near: [], wares: [], prices: [] };
  const { table } = seats.in(world);
  const actors = table.cells.actor;
  const keepers = allKeepers(world);
  const { isAnywhere } = stalls.in(world);
  for (let seat = 0; seat < table.high; seat++) {
    if (table.live[seat] === 0) continue;
    const actor = actors[seat];
    const row = world.actors.rowOf(actor);
    const close = row < 0 ? NOBODY : keepersNear(world, row, keepers, farthest);
    if (close.length === 0 && !isAnywhere) continue;
    const here = all.filter((shop) => standsNear(world, actor, shop, close));
    for (const { index } of here) rows.near.push({ actor, shop: index, market: -1 });
    for (const market of places) if (standsNear(world, actor, market, close)) rows.near.push({ actor, shop: -1, market: market.index });
    for (const offer of new Set(here.flatMap(({ sells }) => sells))) show(world, actor, list[offer], rows);
  }
  near.keep(rows.near);
  wares.keep(rows.wares);
  prices.keep(rows.prices);
}

export function show(world: World, actor: number, offer: Offer, rows: Rows): void {
  const left = leftOf(world, offer);
  const held = heldOf(world, actor, offer.index);
  // At its last tier there is no next one, nor a price of it.
  const deal = offer.tiers > 0 && held >= offer.tiers ? undefined : dealOf(world, actor, offer);
  const refusal = buyingRefusal(world, actor, offer, deal);
  rows.wares.push({
    actor,
    offer: offer.index,
    held,
    left: left === Infinity ? -1 : left,
    against: refusal ? AGAINST.indexOf(refusal['reason'] as (typeof AGAINST)[number]) : 0,
    says: world.textIndex(typeof refusal?.['says'] === 'string' ? refusal['says'] : ''),
    // Of what one would have with it.
    upkeep: upkeepOf(world, actor, offer, deal ? held + 1 : held),
  });
  if (!deal) return;
  for (const { attribute, amount } of deal.costs) rows.prices.push({ actor, offer: offer.index, attribute, amount: -amount });
  for (const { attribute, amount } of deal.gets) rows.prices.push({ actor, offer: offer.index, attribute, amount });
}
