import type { ChapterPage } from '../chapter-page';

export const statusesPage: ChapterPage = {
  key: 'statuses',
  title: 'Statuses',
  one: 'status',
  fresh: () => ({}),
  pieces: async () => {
    const { StatusSentences } = await import('./status-sentences');
    return { spec: [{ type: StatusSentences }] };
  },
};
