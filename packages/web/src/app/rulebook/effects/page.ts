import type { ChapterPage } from '../chapter-page';

export const effectsPage: ChapterPage = {
  key: 'effects',
  title: 'Effects',
  one: 'effect',
  fresh: () => ({ lasts: '5s' }),
  evidence: 'Tried out',
  look: { statuses: 'below' },
};
