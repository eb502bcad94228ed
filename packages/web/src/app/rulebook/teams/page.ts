import type { ChapterPage } from '../chapter-page';

export const teamsPage: ChapterPage = {
  key: 'teams',
  title: 'Teams',
  one: 'team',
  fresh: () => ({ mark: 'T' }),
  pieces: async () => {
    const [{ TeamSentences }, { TeamRulesPart }, { TeamEvidencePage }] = await Promise.all([
      import('./team-sentences'),
      import('./team-rules'),
      import('./team-evidence'),
    ]);
    return { spec: [{ type: TeamSentences }, { type: TeamRulesPart }], beside: { type: TeamEvidencePage } };
  },
};
