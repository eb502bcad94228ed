import type { ChapterPage } from '../chapter-page';

export const tracksPage: ChapterPage = {
  key: 'tracks',
  title: 'Levels',
  one: 'track',
  fresh: () => ({ levels: 20, needs: '100 * level' }),
  pieces: async () => {
    const [{ TrackSentences }, { TrackEvidencePage }] = await Promise.all([import('./track-sentences'), import('./track-evidence')]);
    return { spec: [{ type: TrackSentences }], beside: { type: TrackEvidencePage, takesId: true } };
  },
};
