import type { AttributeQuestions } from '@eager-ember/core';
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
  look: {
    alone: true,
    statuses: 'behind',
    comparison: {
      act: 'compare following',
      hint: 'The three ways in which it can follow its maximum',
      title: 'If it kept its value, kept its share, or moved along',
      of: (entry) => entry?.['kind'] === 'pool' && typeof entry['max'] === 'string',
      ask: (client, document, id) => client.of<AttributeQuestions>('attributes').follow(document, id),
    },
  },
};
