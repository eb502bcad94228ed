import type { ChapterPage } from '../chapter-page';

export const questsPage: ChapterPage = {
  key: 'quests',
  title: 'Quests',
  one: 'quest',
  fresh: () => ({
    text: 'What there is to do.',
    offered: [{ by: 'start' }],
    steps: [
      { id: 'first', label: 'First', goals: [{ id: 'fell', line: 'Felled {have}/{need}', on: { on: 'actorDefeated', who: 'source' } }] },
    ],
  }),
};
