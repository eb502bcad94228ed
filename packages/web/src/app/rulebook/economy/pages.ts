import type { ChapterPage } from '../chapter-page';

export const marketsPage: ChapterPage = {
  key: 'markets',
  title: 'Markets',
  one: 'market',
  fresh: () => ({ goods: [] }),
  tab: 'Economy',
  also: ['shops', 'offers'],
  pieces: async () => {
    const [{ MarketSentences }, { EconomyRulesPart }, { EconomyOutcomes }] = await Promise.all([
      import('./market-sentences'),
      import('./economy-rules'),
      import('./economy-outcomes'),
    ]);
    return {
      spec: [{ type: MarketSentences }, { type: EconomyRulesPart }],
      beside: { type: EconomyOutcomes },
      empty: { type: EconomyRulesPart },
    };
  },
};

export const shopsPage: ChapterPage = {
  key: 'shops',
  title: 'Shops',
  one: 'shop',
  fresh: () => ({ sells: [] }),
  pieces: async () => {
    const [{ ShopSentences }, { EconomyRulesPart }, { EconomyOutcomes }] = await Promise.all([
      import('./shop-sentences'),
      import('./economy-rules'),
      import('./economy-outcomes'),
    ]);
    return {
      spec: [{ type: ShopSentences }, { type: EconomyRulesPart, inputs: { folded: true } }],
      beside: { type: EconomyOutcomes },
      empty: { type: EconomyRulesPart },
    };
  },
};

export const offersPage: ChapterPage = {
  key: 'offers',
  title: 'Offers',
  one: 'offer',
  fresh: () => ({}),
  pieces: async () => {
    const [{ OfferSentences }, { EconomyRulesPart }, { EconomyOutcomes }] = await Promise.all([
      import('./offer-sentences'),
      import('./economy-rules'),
      import('./economy-outcomes'),
    ]);
    return {
      spec: [{ type: OfferSentences }, { type: EconomyRulesPart, inputs: { folded: true } }],
      beside: { type: EconomyOutcomes },
      empty: { type: EconomyRulesPart },
    };
  },
};
