import type { ChapterPage } from '../chapter-page';

export const clipsPage: ChapterPage = {
  key: 'clips',
  title: 'Clips',
  one: 'clip',
  fresh: () => ({ length: '1s' }),
};
