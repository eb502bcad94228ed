import type { Type } from '@angular/core';
import type { ChapterPage, PagePieces } from '../chapter-page';

/** The rules of money belong on each page of the economy: whole on the first, folded on the others. What comes of them stands beside. */
async function pieces(sentences: Promise<Type<unknown>>, folded: boolean): Promise<PagePieces> {
  const [type, { EconomyRulesPart }, { EconomyOutcomes }] = await Promise.all([
    sentences,
    import('./economy-rules'),
    import('./economy-outcomes'),
  ]);
  return {
    spec: [{ type }, { type: EconomyRulesPart, inputs: { folded } }],
    beside: { type: EconomyOutcomes },
    empty: { type: EconomyRulesPart },
  };
}

export const marketsPage: ChapterPage = {
  key: 'markets',
  title: 'Markets',
  tab: 'Economy',
  one: 'market',
  also: ['shops', 'offers'],
  fresh: () => ({ goods: [] }),
  pieces: () =>
    pieces(
      import('./market-sentences').then(({ MarketSentences }) => MarketSentences),
      false,
    ),
};

export const shopsPage: ChapterPage = {
  key: 'shops',
  title: 'Shops',
  one: 'shop',
  fresh: () => ({ sells: [] }),
  pieces: () =>
    pieces(
      import('./shop-sentences').then(({ ShopSentences }) => ShopSentences),
      true,
    ),
};

export const offersPage: ChapterPage = {
  key: 'offers',
  title: 'Offers',
  one: 'offer',
  fresh: () => ({}),
  pieces: () =>
    pieces(
      import('./offer-sentences').then(({ OfferSentences }) => OfferSentences),
      true,
    ),
};
