import type { ChapterPage } from '../chapter-page';

export const groupsPage: ChapterPage = {
  key: 'groups',
  title: 'Cooldown groups',
  one: 'group',
  fresh: () => ({ lasts: '1s' }),
};
