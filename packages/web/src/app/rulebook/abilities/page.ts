import { CLIP_FILES } from '../clips/clip-files';
import type { ChapterPage } from '../chapter-page';

export const abilitiesPage: ChapterPage = {
  key: 'abilities',
  title: 'Abilities',
  one: 'ability',
  fresh: () => ({ cooldown: '5s' }),
  also: ['clips', 'groups'],
  files: { act: 'clips', of: CLIP_FILES },
  evidence: 'Used whenever it can be',
  look: { bare: true },
};
