import type { ChapterPage } from '../chapter-page';

export const treesPage: ChapterPage = {
  key: 'trees',
  title: 'Skills',
  one: 'skill tree',
  fresh: () => ({ points: 5, nodes: [{ id: 'first', label: 'First', x: 1, y: 0 }] }),
};
