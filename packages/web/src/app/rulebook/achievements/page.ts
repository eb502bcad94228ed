import type { ChapterPage } from '../chapter-page';

export const achievementsPage: ChapterPage = {
  key: 'achievements',
  title: 'Achievements',
  one: 'achievement',
  fresh: () => ({ on: { on: 'actorDefeated', who: 'source' }, text: 'What it takes.' }),
  pieces: async () => {
    const [{ AchievementSentences }, { AchievementList }] = await Promise.all([
      import('./achievement-sentences'),
      import('./achievement-list'),
    ]);
    return { spec: [{ type: AchievementSentences }], beside: { type: AchievementList, takesId: true } };
  },
};
