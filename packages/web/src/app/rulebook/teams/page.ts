import type { ChapterPage } from '../chapter-page';

export const teamsPage: ChapterPage = {
  key: 'teams',
  title: 'Teams',
  one: 'team',
  fresh: () => ({ mark: 'T' }),
};
