import type { ChapterPage } from '../chapter-page';

export const tracksPage: ChapterPage = {
  key: 'tracks',
  title: 'Levels',
  one: 'track',
  fresh: () => ({ levels: 20, needs: '100 * level' }),
};
