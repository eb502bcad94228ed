import type { PagePieces } from '../chapter-page';
import { QuestPath } from './quest-path';
import { QuestSentences } from './quest-sentences';

export const questsPieces: PagePieces = { spec: [{ type: QuestSentences }], beside: { type: QuestPath, takesId: true } };
