import type { ChapterPage } from '../rulebook/chapter-page';

export const huntsPage: ChapterPage = {
  key: 'hunts',
  title: 'Hunts',
  one: 'hunt',
  fresh: () => ({
    given: ['north', 'south', 'east', 'west'].map((name) => ({ name })),
    may: [{ input: 'anything' }, { leaves: 'everyone' }],
    always: [],
  }),
  workplace: true,
  ahead: true,
};
