import type { ChapterPage } from '../chapter-page';

export const statesPage: ChapterPage = {
  key: 'states',
  title: 'States',
  one: 'state',
  fresh: () => ({ allows: [], lasts: '3s' }),
  pieces: async () => {
    const [{ StateSentences }, { StateEvidence }] = await Promise.all([import('./state-sentences'), import('./state-evidence')]);
    return { spec: [{ type: StateSentences }], beside: { type: StateEvidence, takesId: true } };
  },
};
