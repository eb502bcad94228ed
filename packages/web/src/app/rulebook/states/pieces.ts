import type { PagePieces } from '../chapter-page';
import { StateEvidence } from './state-evidence';
import { StateSentences } from './state-sentences';

export const statesPieces: PagePieces = { spec: [{ type: StateSentences }], beside: { type: StateEvidence, takesId: true } };
