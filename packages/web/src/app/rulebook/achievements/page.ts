import type { ChapterPage } from '../chapter-page';

export const achievementsPage: ChapterPage = {
  key: 'achievements',
  title: 'Achievements',
  one: 'achievement',
  fresh: () => ({ on: { on: 'actorDefeated', who: 'source' }, text: 'What it takes.' }),
};
