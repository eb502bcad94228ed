import type { PagePieces } from '../chapter-page';
import { ClipSentences } from './clip-sentences';

export const clipsPieces: PagePieces = { spec: [{ type: ClipSentences }] };
