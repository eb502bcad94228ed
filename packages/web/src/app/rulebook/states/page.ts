import type { ChapterPage } from '../chapter-page';

export const statesPage: ChapterPage = {
  key: 'states',
  title: 'States',
  one: 'state',
  fresh: () => ({ allows: [], lasts: '3s' }),
};
