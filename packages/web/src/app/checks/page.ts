import type { ChapterPage } from '../rulebook/chapter-page';

export const checksPage: ChapterPage = {
  key: 'checks',
  title: 'Checks',
  one: 'check',
  fresh: () => ({ given: [{ name: 'north' }], stages: [{ when: [], then: [] }] }),
  workplace: true,
  ahead: true,
  also: ['hunts'],
  alsoFirst: true,
};
