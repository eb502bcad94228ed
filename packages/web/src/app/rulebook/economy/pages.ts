import type { ChapterPage } from '../chapter-page';

export const marketsPage: ChapterPage = {
  key: 'markets',
  title: 'Markets',
  tab: 'Economy',
  one: 'market',
  also: ['shops', 'offers'],
  fresh: () => ({ goods: [] }),
};

export const shopsPage: ChapterPage = {
  key: 'shops',
  title: 'Shops',
  one: 'shop',
  fresh: () => ({ sells: [] }),
};

export const offersPage: ChapterPage = {
  key: 'offers',
  title: 'Offers',
  one: 'offer',
  fresh: () => ({}),
};
