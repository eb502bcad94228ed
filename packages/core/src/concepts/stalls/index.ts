import { defineConcept } from '../../world/concept.js';
import type { Table } from '../../world/table.js';
import type { World } from '../../world/world.js';
import { ledger, ofMoney } from '../ledger/index.js';
import { markets } from '../markets/index.js';
import { seats } from '../seats/index.js';
import { buyingRefusal, heldOf, keepersOf, leftOf, type Offer, partsOf, shops, standsNear, upkeepOf } from '../shops/index.js';
import { asTold } from '../../ruleset/visible.js';

/** What can stand against an offer, by the number in its cell. */
export const AGAINST = ['', 'tooPoor', 'noRoom', 'soldOut', 'topTier', 'atMost', 'needs', 'ruined', 'over'] as const;

interface Stalls {
  readonly near: Table;
  readonly wares: Table;
  readonly prices: Table;
}

/**
 * Stalls: what the shops and markets around a player would trade with them just now. Worked out from the rest for every
 * seat, told to its player alone, and to nobody who is not near.
 */
export const stalls = defineConcept<undefined, Stalls>({
  id: 'stalls',
  tables: (_, rules) => [
    {
      name: 'stalls',
      owner: 'actor',
      columns: [
        { name: 'actor', kind: 'actor', see: 'owner' },
        { name: 'shop', kind: 'entry', chapter: 'shops', optional: true, see: 'owner' },
        { name: 'market', kind: 'entry', chapter: 'markets', optional: true, see: 'owner' },
      ],
    },
    {
      name: 'wares',
      owner: 'actor',
      columns: [
        { name: 'actor', kind: 'actor', see: 'owner' },
        { name: 'offer', kind: 'entry', chapter: 'offers', see: 'owner' },
        { name: 'held', kind: 'int', see: 'owner' },
        // How many are left for everybody; -1 for as many as like.
        { name: 'left', kind: 'int', see: 'owner' },
        { name: 'against', kind: 'int', see: 'owner' },
        { name: 'says', kind: 'text', see: 'owner' },
        { name: 'upkeep', kind: 'number', decimals: 2, see: ofMoney(rules) },
      ],
    },
    {
      // What an offer takes (below nothing) and gives.
      name: 'warePrices',
      owner: 'actor',
      columns: [
        { name: 'actor', kind: 'actor' as const },
        { name: 'offer', kind: 'entry' as const, chapter: 'offers' },
        { name: 'attribute', kind: 'entry' as const, chapter: 'attributes' },
        { name: 'amount', kind: 'number' as const, decimals: 2 },
      ].map((column) => ({ ...column, see: { column: 'attribute', of: asTold(rules, 'attributes', 'owner') } })),
    },
  ],
  attach: (world) => ({ near: world.table('stalls'), wares: world.table('wares'), prices: world.table('warePrices') }),
  systems: { removal: showAll },
});

/** Has a table hold just these rows: those that stand already stay, others come and go. */
function keep(table: Table, wanted: readonly Readonly<Record<string, number>>[]): void {
  if (wanted.length === 0 && table.count === 0) return;
  const names = table.columns.map(({ spec }) => spec.name);
  const open = new Map(wanted.map((cells) => [names.map((name) => cells[name]).join('/'), cells]));
  for (let row = 0; row < table.high; row++) {
    if (table.live[row] === 0) continue;
    if (!open.delete(table.columns.map((column) => column.data[row]).join('/'))) table.remove(row);
  }
  for (const cells of open.values()) table.write(table.add(), cells);
}

function showAll(world: World): void {
  const { near, wares, prices } = stalls.in(world);
  const { shops: all, list } = shops.in(world);
  const { list: places } = markets.in(world);
  if (all.length + places.length === 0 && near.count === 0) return;
  if (!ledger.of(world.rules).economy && all.length === 0) return;
  const rows: Record<'near' | 'wares' | 'prices', Readonly<Record<string, number>>[]> = { near: [], wares: [], prices: [] };
  const { table } = seats.in(world);
  const actors = table.column('actor').data;
  const keepers = keepersOf(world, [...all, ...places]);
  for (let seat = 0; seat < table.high; seat++) {
    if (table.live[seat] === 0) continue;
    const actor = actors[seat];
    const here = all.filter((shop) => standsNear(world, actor, shop, keepers));
    for (const { index } of here) rows.near.push({ actor, shop: index, market: -1 });
    for (const market of places) if (standsNear(world, actor, market, keepers)) rows.near.push({ actor, shop: -1, market: market.index });
    for (const offer of new Set(here.flatMap(({ sells }) => sells))) show(world, actor, list[offer], rows);
  }
  keep(near, rows.near);
  keep(wares, rows.wares);
  keep(prices, rows.prices);
}

function show(world: World, actor: number, offer: Offer, rows: Record<'wares' | 'prices', Readonly<Record<string, number>>[]>): void {
  const refusal = buyingRefusal(world, actor, offer);
  const left = leftOf(world, offer);
  const held = heldOf(world, actor, offer.index);
  // At its last tier there is no next one, nor a price of it.
  const isWhole = offer.tiers > 0 && held >= offer.tiers;
  rows.wares.push({
    actor,
    offer: offer.index,
    held,
    left: left === Infinity ? -1 : left,
    against: refusal ? AGAINST.indexOf(refusal['reason'] as (typeof AGAINST)[number]) : 0,
    says: world.textIndex(typeof refusal?.['says'] === 'string' ? refusal['says'] : ''),
    // Of what one would have with it.
    upkeep: upkeepOf(world, actor, offer, isWhole ? held : held + 1),
  });
  if (isWhole) return;
  for (const [side, sign] of [
    ['costs', -1],
    ['gets', 1],
  ] as const)
    for (const { attribute, amount } of partsOf(world, actor, offer, side))
      rows.prices.push({ actor, offer: offer.index, attribute, amount: sign * amount });
}
