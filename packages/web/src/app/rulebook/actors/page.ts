import type { ChapterPage } from '../chapter-page';

export const actorsPage: ChapterPage = {
  key: 'actors',
  title: 'Actors',
  one: 'actor',
  fresh: () => ({ kind: 'foe' }),
  also: ['states'],
  evidence: 'Left to itself beside one who stands still',
  look: { alone: true, bare: true },
};
