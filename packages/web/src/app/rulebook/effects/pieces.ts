import type { PagePieces } from '../chapter-page';
import { EffectSentences } from './effect-sentences';

export const effectsPieces: PagePieces = { spec: [{ type: EffectSentences }] };
