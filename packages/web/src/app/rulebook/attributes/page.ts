import { ATTRIBUTE_FILES } from './attribute-files';
import type { ChapterPage } from '../chapter-page';

export const attributesPage: ChapterPage = {
  key: 'attributes',
  title: 'Stats',
  one: 'attribute',
  fresh: () => ({ kind: 'pool', max: 100, see: 'owner' }),
  also: ['statuses'],
  files: { act: 'table', of: ATTRIBUTE_FILES },
  evidence: 'What becomes of it',
  pieces: async () => {
    const { AttributeSentences } = await import('./attribute-sentences');
    return { spec: [{ type: AttributeSentences }] };
  },
};
