import type { ChapterPage } from '../chapter-page';

export const statusesPage: ChapterPage = {
  key: 'statuses',
  title: 'Statuses',
  one: 'status',
  fresh: () => ({}),
};
