import { reference } from '../../ruleset/fields.js';
import { defineConcept } from '../../world/concept.js';
import { compileShops } from './compile.js';
import { findings } from './findings.js';
import { standsNear } from './near.js';
import { offerSchema, shopSchema } from './schema.js';
import { purchasesTable, stocksTable } from './tables.js';
import { shops } from './state.js';
import { buy, heldOf, keepWithin, refuse } from './system.js';
import { events } from './events.js';
import { raised } from '../attributes/consequences.js';
import { mostHeld, offerChapter } from './schema.js';

export { shops } from './state.js';
export { purchasesTable } from './tables.js';
export type { Offer, Shop } from './compile.js';
export { keepersNear, keepersOf, standsNear } from './near.js';
export { MOST_TIERS, type OfferEntry, RESTOCKS, type ShopEntry } from './schema.js';
export { dealOf, heldOf, leftOf, upkeepOf, buyingRefusal, buy, restock } from './system.js';

/** Shops: offers that are paid and received in one step, tier by tier or again and again, from a stock that all share. */
export const shopsConcept = defineConcept(shops, {
  consequences: (rules) => offerChapter.of(rules).flatMap(({ gets }) => gets.map(({ attribute }) => raised(attribute))),
  alsoCalled: { names: { bought: ['offerBought'] } },
  sections: {
    shops: { kind: 'chapter', title: 'Shops', entry: shopSchema },
    offers: {
      kind: 'chapter',
      title: 'Offers',
      entry: offerSchema,
      unused: 'no shop sells it. Have one sell it, or delete it.',
      ownConditions: true,
    },
  },
  vocabulary: (ids) => ({
    functions: [
      {
        name: 'tier',
        chapter: 'offers',
        ids: ids('offers'),
        amounts: 0,
        yields: 'amount',
        between: (rules, id) => ({ low: 0, high: mostHeld(rules, id) }),
        read: (offer) => (world, actor) => heldOf(world, actor, offer),
      },
    ],
  }),
  compileInParts: compileShops,
  tables: ({ offers, players }) => [purchasesTable.under(offers, { present: { column: 'type', of: players } }), stocksTable],
  attach: (world, compiled) => ({
    ...compiled,
    held: purchasesTable.columnsIn(world, compiled.offers),
    stocks: stocksTable.in(world),
  }),
  events,
  inputs: {
    buy: {
      label: 'buy an offer',
      sentence: 'buys {offer}',
      args: { offer: reference('offers') },
      traced: true,
      run: (world, actor, { offer }) => {
        const { list, shops: all } = shops.in(world);
        const wanted = list.find((one) => one.id === offer);
        const sellers = wanted ? all.filter(({ sells }) => sells.includes(wanted.index)) : [];
        const here = sellers.find((shop) => standsNear(world, actor, shop));
        if (!wanted || !here) return refuse(world, actor, { reason: sellers.length === 0 ? 'notSold' : 'tooFar' });
        buy(world, actor, wanted, here.id);
      },
    },
  },
  findings,
  lifecycle: {
    playerLoaded: (world, row) => keepWithin(world, row),
    rulesAdopted: (world) => {
      world.actors.each((row) => keepWithin(world, row));
    },
  },
  display: ({ list, shops: all }) => ({
    shops: all.map(({ id: shop, label, sells }) => ({ id: shop, label, sells: sells.map((offer) => list[offer].id) })),
    offers: list.map(({ id: offer, label, tiers, stock }) => ({ id: offer, label, tiers, stock })),
  }),
});
