import type { PagePieces } from '../chapter-page';
import { TrackEvidencePage } from './track-evidence';
import { TrackSentences } from './track-sentences';

export const tracksPieces: PagePieces = { spec: [{ type: TrackSentences }], beside: { type: TrackEvidencePage, takesId: true } };
